// The space bar held: dragging moves the table whatever tool is in hand.
import { useEffect, useState } from "react";

export function useSpaceBar(): boolean {
  const [isHeld, setHeld] = useState(false);
  useEffect(() => {
    const takesText = (event: KeyboardEvent) =>
      event.target instanceof HTMLInputElement || event.target instanceof HTMLButtonElement;
    const onDown = (event: KeyboardEvent) => {
      if (event.key !== " " || takesText(event)) return;
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
