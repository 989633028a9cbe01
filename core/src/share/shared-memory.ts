// Memory that all threads see: large arrays that many parts of work read need not be sent to each who helps.

/** Whether the engine grants it: browsers do to pages that are isolated from those of other origins. */
export const canShareMemory = typeof SharedArrayBuffer === "function";

/** A copy of some bytes in shared memory; it passes from thread to thread as it is. Only where `canShareMemory`. */
export function shareBytes<T extends Uint8Array | Uint8ClampedArray>(bytes: T): T {
  const memory = new SharedArrayBuffer(bytes.length);
  const copy = bytes instanceof Uint8Array ? new Uint8Array(memory) : new Uint8ClampedArray(memory);
  copy.set(bytes);
  return copy as T;
}
