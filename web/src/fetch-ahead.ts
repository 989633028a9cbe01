// All parts of the application, fetched when the browser is idle: a screen that was never opened opens while the server is
// away, and a new one opens at once.
import { whenIdle } from "./parts/when-idle.ts";

/** Before it begins, ms: what the first screen needs comes first. */
const QUIET_MS = 800;

/** @param readFirst Reads what will most likely be opened next, so that it is not only here but ready. */
export function fetchAhead(readFirst: () => Promise<unknown>): void {
  setTimeout(async () => {
    await whenIdle();
    await readFirst().catch(() => null);
    const parts = await fetch("/parts.json")
      .then((answer): Promise<string[]> => answer.json())
      .catch(() => []);
    for (const part of parts) {
      await whenIdle();
      // Into the browser's cache, where it stays: parts never change under their name.
      await fetch(part, { priority: "low" })
        .then((answer) => answer.blob())
        .catch(() => null);
    }
  }, QUIET_MS);
}
