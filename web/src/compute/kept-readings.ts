// What was computed of artworks, kept in the browser's own storage, so that a job opened again is not traced again. It is
// only a memory: whatever goes wrong with it, everything is computed as if it were not there.
import type { Readings } from "@plain-palette/core/recipe";
import { type DBSchema, openDB } from "idb";

/** Bytes of all artworks together: some fifty common jobs, or two of 24 megapixels. One may have half of it. */
const MOST_BYTES = 512e6;

interface Shape extends DBSchema {
  readings: { key: string; value: Readings };
  /** Told of each without fetching it. */
  entries: { key: string; value: Entry };
}

interface Entry {
  readonly artwork: string;
  /** The code that made it. Another one may come to other results. */
  readonly code: string;
  readonly bytes: number;
  /** ms since 1970. */
  readonly usedAt: number;
}

export interface KeptReadings {
  find(artwork: string): Promise<Readings | null>;
  put(artwork: string, readings: Readings): Promise<void>;
}

/** @param code Names the running code. */
export function keepReadings(code: string, mostBytes = MOST_BYTES): KeptReadings {
  const opened = openDB<Shape>("plain-palette readings", 1, {
    upgrade(database) {
      database.createObjectStore("readings");
      database.createObjectStore("entries", { keyPath: "artwork" });
    },
  }).catch(() => null);
  return {
    async find(artwork) {
      const database = await opened;
      const entry = await database?.get("entries", artwork).catch(() => null);
      if (!database || entry?.code !== code) return null;
      const found = await database.get("readings", artwork).catch(() => null);
      database.put("entries", { ...entry, usedAt: Date.now() }).catch(() => {});
      return found ?? null;
    },
    async put(artwork, readings) {
      const database = await opened;
      const bytes = countBytes(readings);
      if (!database || bytes > mostBytes / 2) return;
      const transaction = database.transaction(["readings", "entries"], "readwrite");
      const all = transaction.objectStore("readings");
      const entries = transaction.objectStore("entries");
      const others = (await entries.getAll()).filter((one) => one.artwork !== artwork);
      for (const { artwork: old } of tooMany(others, code, mostBytes - bytes)) {
        void all.delete(old);
        void entries.delete(old);
      }
      void all.put(readings, artwork);
      void entries.put({ artwork, code, bytes, usedAt: Date.now() });
      // No room: nothing is lost by that.
      await transaction.done.catch(() => {});
    },
  };
}

/** Those that have to go: what other code made, and the longest unused beyond so many bytes. */
function tooMany(entries: readonly Entry[], code: string, room: number): Entry[] {
  const latestFirst = [...entries].sort((a, b) => b.usedAt - a.usedAt);
  let bytes = 0;
  return latestFirst.filter((one) => {
    if (one.code === code) bytes += one.bytes;
    return one.code !== code || bytes > room;
  });
}

/** Bytes of all flat arrays that are reached from a value, each once: nearly all that there is. */
function countBytes(value: unknown, seen = new Set<unknown>()): number {
  if (typeof value !== "object" || value === null || seen.has(value)) return 0;
  seen.add(value);
  if (ArrayBuffer.isView(value)) return countBytes(value.buffer, seen);
  if (value instanceof ArrayBuffer) return value.byteLength;
  const parts = value instanceof Map ? [...value.keys(), ...value.values()] : Object.values(value);
  return parts.reduce<number>((sum, part) => sum + countBytes(part, seen), 0);
}
