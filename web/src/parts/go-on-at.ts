// Where the work goes on after something was done: the focus is put there and it comes into view, and what was done is said.
import { say } from "../frame/say.tsx";

/** What is added may have to be computed before it is there. */
const PATIENCE_MS = 5000;

/**
 * @param find What gets the focus; asked until it is there, and no longer once a person does something else.
 * @param words What was done, by name.
 */
export function goOnAt(find: () => HTMLElement | null | undefined, words?: string): void {
  if (words) say(words);
  const end = performance.now() + PATIENCE_MS;
  const elsewhere = new AbortController();
  for (const kind of ["keydown", "pointerdown"])
    window.addEventListener(kind, () => elsewhere.abort(), { capture: true, signal: elsewhere.signal });
  const look = () => {
    if (elsewhere.signal.aborted) return;
    const target = find();
    if (!target && performance.now() < end) return void requestAnimationFrame(look);
    elsewhere.abort();
    target?.focus();
    target?.scrollIntoView({ block: "nearest" });
  };
  requestAnimationFrame(look);
}

/** What is called so, as assistive software hears it. */
export const labelled = (label: string) => document.querySelector<HTMLElement>(`[aria-label="${CSS.escape(label)}"]`);
