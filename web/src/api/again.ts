// What the server does not take now is tried again: by itself after a pause, or when a person says so, everywhere at once.
import { isAway, RequestProblem } from "./requests.ts";

const calls = new EventTarget();

/** Tries everything that waits for the server. */
export function tryNow(): void {
  calls.dispatchEvent(new Event("now"));
}

/** Returns what ends it. */
export function onTryNow(heard: () => void): () => void {
  calls.addEventListener("now", heard);
  return () => calls.removeEventListener("now", heard);
}

/** Until something is tried again, where the server says nothing else, ms. */
export const AGAIN_MS = 3000;

/**
 * Does what needs the server as soon as it can take it; `onWait` is told why it cannot yet. Rejects with any other problem,
 * or with the signal's reason.
 */
export async function untilTaken<T>(
  work: () => Promise<T>,
  onWait: (problem: RequestProblem) => void,
  signal: AbortSignal,
): Promise<T> {
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (!(error instanceof RequestProblem) || !isAway(error.problem)) throw error;
      onWait(error);
      await pause(error.retryAfterS === null ? AGAIN_MS : error.retryAfterS * 1000, signal);
    }
  }
}

function pause(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const end = (how: () => void) => {
      clearTimeout(timer);
      stopHearing();
      signal.removeEventListener("abort", abort);
      how();
    };
    const abort = () => end(() => reject(signal.reason));
    const timer = setTimeout(() => end(resolve), ms);
    const stopHearing = onTryNow(() => end(resolve));
    signal.addEventListener("abort", abort);
    if (signal.aborted) abort();
  });
}
