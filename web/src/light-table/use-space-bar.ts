// The space bar held: dragging moves the table whatever tool is in hand.
import { useEffect, useState } from "react";
import { takesText } from "../parts/takes-text.ts";

export function useSpaceBar(): boolean {
  const [isHeld, setHeld] = useState(false);
  useEffect(() => {
    // On a button or a box to tick the space bar presses it.
    const isMeant = ({ target }: KeyboardEvent) =>
      takesText(target) || target instanceof HTMLInputElement || target instanceof HTMLButtonElement;
    const onDown = (event: KeyboardEvent) => {
      if (event.key !== " " || isMeant(event)) return;
      event.preventDefault();
      setHeld(true);
    };
    const onUp = (event: KeyboardEvent) => {
      if (event.key === " ") setHeld(false);
    };
    window.addEventListener("keydown", onDown);
    window.addEventListener("keyup", onUp);
    return () => {
      window.removeEventListener("keydown", onDown);
      window.removeEventListener("keyup", onUp);
    };
  }, []);
  return isHeld;
}
