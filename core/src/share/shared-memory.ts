// Memory that all threads see: large arrays that many parts of work read need not be sent to each who helps.

/** Whether the engine grants it: browsers do to pages that are isolated from those of other origins. */
export const canShareMemory = typeof SharedArrayBuffer === "function";

/** So many bytes, all 0, in shared memory: they pass from thread to thread as they are. Only where `canShareMemory`. */
export function sharedBytes(length: number): Uint8Array {
  return new Uint8Array(new SharedArrayBuffer(length));
}
