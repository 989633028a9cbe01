// The space bar held with the pointer over the table: dragging moves the table whatever tool is in hand, and whatever was
// clicked last. Elsewhere, and for whoever came there by keyboard, it presses what has the focus, as always.
import { type RefObject, useEffect, useState } from "react";
import { takesText } from "../parts/takes-text.ts";

/** What the space bar does something to by itself. */
const OWN = "a, button, select, summary, input, [role=slider], [role=tab], [role=radio], [role=option]";

export function useSpaceBar(frame: RefObject<HTMLElement | null>): boolean {
  const [isHeld, setHeld] = useState(false);
  useEffect(() => {
    const isMeant = ({ key, target }: KeyboardEvent) => {
      if (key !== " " || takesText(target)) return false;
      const isOverTable = frame.current?.matches(":hover") ?? false;
      if (!(target instanceof Element) || !target.matches(OWN)) return true;
      return isOverTable && !target.matches("select, :focus-visible");
    };
    const onDown = (event: KeyboardEvent) => {
      if (!isMeant(event)) return;
      event.preventDefault();
      setHeld(true);
    };
    const onUp = (event: KeyboardEvent) => {
      if (event.key !== " ") return;
      // A button is pressed when the bar comes up.
      if (isMeant(event)) event.preventDefault();
      setHeld(false);
    };
    // Before what has the focus hears of it.
    window.addEventListener("keydown", onDown, { capture: true });
    window.addEventListener("keyup", onUp, { capture: true });
    return () => {
      window.removeEventListener("keydown", onDown, { capture: true });
      window.removeEventListener("keyup", onUp, { capture: true });
    };
  }, [frame]);
  return isHeld;
}
