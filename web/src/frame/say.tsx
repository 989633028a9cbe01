// What has just happened, said to assistive software without moving the focus.
import { create } from "zustand";

const useSaid = create<{ readonly words: string; readonly turn: number }>(() => ({ words: "", turn: 0 }));

/** The same words twice are said twice. */
export function say(words: string): void {
  useSaid.setState(({ turn }) => ({ words, turn: turn + 1 }));
}

export function Said() {
  const { words, turn } = useSaid();
  return (
    <p role="status" className="sr-only" data-testid="said">
      <span key={turn}>{words}</span>
    </p>
  );
}
