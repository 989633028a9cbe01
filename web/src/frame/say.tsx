// What has just happened, said to assistive software without moving the focus.
import { create } from "zustand";

const useSaid = create(() => ({ words: "", turn: 0, at: Number.NEGATIVE_INFINITY }));

/** What comes within it is one message: the first of two at once would never be heard, ms. */
const AT_ONCE_MS = 400;

/** The same words twice are said twice. */
export function say(words: string): void {
  const now = performance.now();
  useSaid.setState((last) => ({
    words: now - last.at < AT_ONCE_MS ? `${last.words} ${words}` : words,
    turn: last.turn + 1,
    at: now,
  }));
}

export function Said() {
  const { words, turn } = useSaid();
  return (
    <p role="status" className="sr-only" data-testid="said">
      <span key={turn}>{words}</span>
    </p>
  );
}
