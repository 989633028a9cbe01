// All parts of the application, fetched when the browser is idle: a screen that was never opened opens while the server is
// away, and a new one opens at once.

/** Before it begins, ms: what the first screen needs comes first. */
const QUIET_MS = 800;

export function fetchAhead(): void {
  setTimeout(async () => {
    const parts = await fetch("/parts.json")
      .then((answer): Promise<string[]> => answer.json())
      .catch(() => []);
    for (const part of parts) {
      await untilIdle();
      // Into the browser's cache, where it stays: parts never change under their name.
      await fetch(part, { priority: "low" })
        .then((answer) => answer.blob())
        .catch(() => null);
    }
  }, QUIET_MS);
}

function untilIdle(): Promise<void> {
  return new Promise((resolve) => {
    if ("requestIdleCallback" in window) window.requestIdleCallback(() => resolve());
    else setTimeout(resolve, 50);
  });
}
