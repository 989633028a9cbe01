// Keys of the whole workbench: undo, redo, and the source while O is held.
import { useEffect } from "react";
import { takesText } from "../parts/takes-text.ts";

export function useKeys(undo: () => void, redo: () => void, showSource: (isHeld: boolean) => void): void {
  useEffect(() => {
    const onDown = (event: KeyboardEvent) => {
      if (takesText(event.target)) return;
      const key = event.key.toLowerCase();
      if ((event.ctrlKey || event.metaKey) && key === "z") {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
      } else if ((event.ctrlKey || event.metaKey) && key === "y") {
        event.preventDefault();
        redo();
      } else if (key === "o" && !event.ctrlKey && !event.metaKey) showSource(true);
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
  }, [undo, redo, showSource]);
}
