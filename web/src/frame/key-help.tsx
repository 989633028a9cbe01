// All keys on one sheet, opened by "?".
import { useEffect, useId, useRef } from "react";
import { useLocation } from "react-router";
import { Button } from "../parts/button.tsx";
import { CheckField } from "../parts/fields.tsx";
import { isCommand, switchSingleKeys, useSingleKeys } from "./single-keys.ts";

type Keys = readonly (readonly [keys: string, what: string])[];

/** `isOfJob`: only where a job is open. */
const GROUPS: readonly { readonly title: string; readonly isOfJob?: true; readonly keys: Keys }[] = [
  {
    title: "On every page",
    keys: [
      ["?", "this sheet"],
      ["Tab, Shift+Tab", "on, and back"],
      ["Ctrl+V", "on the board: a copied picture becomes a job"],
    ],
  },
  {
    title: "In a job",
    isOfJob: true,
    keys: [
      ["Ctrl+Z", "undo"],
      ["Ctrl+Shift+Z, Ctrl+Y", "redo"],
      ["T", "to the light table"],
      ["O, held", "the client's picture"],
      ["Space, held", "with the pointer on the table: dragging moves it, whatever tool is in hand"],
      ["Escape", "out of the field; then lays the tool down"],
    ],
  },
  {
    title: "On the light table",
    isOfJob: true,
    keys: [
      ["Arrows", "move it; with Shift farther"],
      ["+, −", "nearer, farther"],
      ["0, 1", "show all, true size"],
      ["Tab", "in Split: to the divider, which arrows move"],
    ],
  },
  {
    title: "On the light table with a tool in hand",
    isOfJob: true,
    keys: [
      ["Arrows", "carry it; with Shift farther"],
      ["Enter", "presses it, and lifts it again"],
      ["Shift, Alt", "straight, and free of everything near"],
    ],
  },
  {
    title: "In a field with a number",
    keys: [
      ["Up, Down", "one step; with Shift ten"],
      ["Enter", "takes it over"],
      ["Escape", "leaves it as it was"],
    ],
  },
  {
    title: "In a list that can be sorted, on the grip",
    keys: [
      ["Space", "picks the row up, and puts it down"],
      ["Up, Down", "carry it"],
      ["Escape", "leaves it where it was"],
    ],
  },
];

export function KeyHelp() {
  const dialog = useRef<HTMLDialogElement>(null);
  const title = useId();
  const { isOn } = useSingleKeys();
  const isInJob = useLocation().pathname.startsWith("/jobs/");
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!isCommand(event, "?") || document.querySelector("dialog[open]")) return;
      event.preventDefault();
      dialog.current?.showModal();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-labelledby={title}
      className="m-auto max-h-[90vh] w-[46rem] max-w-[96vw] overflow-y-auto border border-rule bg-sheet px-6 py-5 text-ink shadow-lg backdrop:bg-ink/30"
    >
      <div className="flex items-start justify-between gap-4 pb-3">
        <h2 id={title} className="text-lg font-semibold">
          Keys
        </h2>
        <Button onClick={() => dialog.current?.close()}>Close</Button>
      </div>
      <div className="gap-8 sm:columns-2">
        {GROUPS.filter(({ isOfJob }) => isInJob || !isOfJob).map((group) => (
          <section key={group.title} className="mb-4 break-inside-avoid">
            <h3 className="pb-1 font-semibold">{group.title}</h3>
            <dl className="grid grid-cols-[8rem_1fr] gap-x-3 gap-y-1">
              {group.keys.map(([keys, what]) => (
                <div key={keys} className="contents">
                  <dt>{keys}</dt>
                  <dd className="text-soft">{what}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </div>
      <CheckField
        label="A letter or sign alone is a command"
        hint="Switched off, only keys with Ctrl, and those of a field or the table that has the focus, do something."
        isOn={isOn}
        onChange={switchSingleKeys}
      />
    </dialog>
  );
}
