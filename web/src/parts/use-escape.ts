// Escape puts down what is in hand.
import { useEffect, useRef } from "react";

/** Calls `putDown` whenever Escape is pressed anywhere on the page. */
export function useEscape(putDown: () => void): void {
  const latest = useRef(putDown);
  useEffect(() => {
    latest.current = putDown;
  });
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape") latest.current();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
