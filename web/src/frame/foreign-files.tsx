// A file that is dropped or pasted where no page takes one: the browser would open it in place of the shop.
import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { Button } from "../parts/button.tsx";

/** What is dropped or pasted has files in it. */
const hasFiles = (transfer: DataTransfer | null) => transfer?.types.includes("Files") ?? false;

export function ForeignFiles() {
  const [isShown, setShown] = useState(false);
  const { pathname } = useLocation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: on another page it is about nothing any more
  useEffect(() => setShown(false), [pathname]);
  useEffect(() => {
    const onDrag = (event: DragEvent) => {
      if (!event.defaultPrevented && hasFiles(event.dataTransfer)) event.preventDefault();
    };
    const onFiles = (transfer: DataTransfer | null, event: Event) => {
      if (event.defaultPrevented || !hasFiles(transfer)) return;
      event.preventDefault();
      setShown(true);
    };
    const onDrop = (event: DragEvent) => onFiles(event.dataTransfer, event);
    const onPaste = (event: ClipboardEvent) => onFiles(event.clipboardData, event);
    window.addEventListener("dragover", onDrag);
    window.addEventListener("drop", onDrop);
    window.addEventListener("paste", onPaste);
    return () => {
      window.removeEventListener("dragover", onDrag);
      window.removeEventListener("drop", onDrop);
      window.removeEventListener("paste", onPaste);
    };
  }, []);
  if (!isShown) return null;
  const isJob = pathname.startsWith("/jobs/");
  return (
    <div
      role="alert"
      className="fixed inset-x-4 bottom-4 z-40 mx-auto flex max-w-xl items-center gap-4 border-l-4 border-ink bg-card px-4 py-3 shadow-lg"
    >
      <p className="flex-1">
        Nothing was done with that file here. A picture becomes a new job on the{" "}
        <Link to="/" className="underline">
          job board
        </Link>
        {isJob && "; as a better version of this job's picture it is taken in at Artwork, Client's file"}.
      </p>
      <Button onClick={() => setShown(false)}>Close</Button>
    </div>
  );
}
