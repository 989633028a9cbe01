// Escape leaves a text that is being written, then puts down what is in hand.
import { useEffect, useRef } from "react";

/** Calls `putDown` whenever Escape is pressed anywhere on the page; from a text of several lines it goes to the table first. */
export function useEscape(putDown: () => void): void {
  const latest = useRef(putDown);
  useEffect(() => {
    latest.current = putDown;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "Escape") return;
      const table = document.getElementById("light-table");
      if (event.target instanceof HTMLTextAreaElement && table) table.focus();
      else latest.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
