// Keys of the whole workbench: undo, redo, to the table, and the source while O is held.
import { useEffect } from "react";
import { isCommand } from "../frame/single-keys.ts";
import { takesText } from "../parts/takes-text.ts";
import type { Moves } from "./use-moves.ts";

interface Commands extends Moves {
  toTable(): void;
  showSource(isHeld: boolean): void;
}

/** Undo in a field is the browser's only while something is typed there that was not taken over yet. */
function isTyping(target: EventTarget | null): boolean {
  return takesText(target) && !(target instanceof HTMLElement && target.dataset.draft === "none");
}

export function useKeys({ undo, redo, toTable, showSource }: Commands): void {
  useEffect(() => {
    const onDown = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      const isControl = event.ctrlKey || event.metaKey;
      if (isControl && (key === "z" || key === "y") && !isTyping(event.target)) {
        event.preventDefault();
        if (key === "y" || event.shiftKey) redo();
        else undo();
      } else if (isCommand(event, "o")) showSource(true);
      else if (isCommand(event, "t")) toTable();
    };
    const onUp = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() === "o") showSource(false);
    };
    window.addEventListener("keydown", onDown);
    window.addEventListener("keyup", onUp);
    return () => {
      window.removeEventListener("keydown", onDown);
      window.removeEventListener("keyup", onUp);
    };
  }, [undo, redo, toTable, showSource]);
}
