// Round every page: the way past its head, what is said aloud, the help of keys, and files that no page takes.
import { Outlet } from "react-router";
import { ForeignFiles } from "./foreign-files.tsx";
import { KeyHelp } from "./key-help.tsx";
import { Said } from "./say.tsx";

export function Frame() {
  return (
    <>
      <a
        href="#work"
        className="absolute left-2 top-2 z-50 -translate-y-20 border border-ink bg-card px-3 py-1 focus:translate-y-0"
      >
        To the work
      </a>
      <Outlet />
      <Said />
      <KeyHelp />
      <ForeignFiles />
    </>
  );
}
