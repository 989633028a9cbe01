// What was computed of artworks, kept in the browser's own storage, so that a job opened again is not traced again. It is
// only a memory: whatever goes wrong with it, everything is computed as if it were not there.
import type { Readings } from "@plain-palette/core/recipe";
import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { putTogether, takeApart } from "./large-arrays.ts";

/** Bytes of all artworks together: some fifty common jobs, or two of 24 megapixels. One may have half of it. */
const MOST_BYTES = 512e6;

interface Shape extends DBSchema {
  readings: { key: string; value: Readings };
  /** Large arrays of the readings, by artwork and number. */
  large: { key: [string, number]; value: ArrayBufferView };
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

const STORES = ["readings", "large", "entries"] as const;

/** @param code Names the running code. */
export function keepReadings(code: string, mostBytes = MOST_BYTES): KeptReadings {
  let opened: Promise<IDBPDatabase<Shape>> | undefined;
  // Not before it is needed: a worker that only stands ready has no use for it.
  const open = () => {
    opened ??= openReadings();
    return opened;
  };
  return {
    find: (artwork) =>
      open()
        .then((database) => find(database, artwork, code))
        .catch(() => null),
    put: async (artwork, readings) => {
      const bytes = countBytes(readings);
      if (bytes > mostBytes / 2) return;
      const entry = { artwork, code, bytes, usedAt: Date.now() };
      // No room, or none of ours: nothing is lost by that.
      await open()
        .then((database) => put(database, entry, readings, mostBytes))
        .catch(() => {});
    },
  };
}

function openReadings(): Promise<IDBPDatabase<Shape>> {
  return openDB<Shape>("plain-palette readings", 1, {
    upgrade(database) {
      database.createObjectStore("readings");
      database.createObjectStore("large");
      database.createObjectStore("entries", { keyPath: "artwork" });
    },
  });
}

async function find(database: IDBPDatabase<Shape>, artwork: string, code: string): Promise<Readings | null> {
  const transaction = database.transaction(STORES, "readwrite");
  const entries = transaction.objectStore("entries");
  const entry = await entries.get(artwork);
  if (entry?.code !== code) return null;
  const [rest, large] = await Promise.all([
    transaction.objectStore("readings").get(artwork),
    transaction.objectStore("large").getAll(allOf(artwork)),
    entries.put({ ...entry, usedAt: Date.now() }),
  ]);
  return rest ? putTogether(rest, large) : null;
}

async function put(database: IDBPDatabase<Shape>, entry: Entry, readings: Readings, mostBytes: number): Promise<void> {
  const { rest, large } = takeApart(readings);
  const transaction = database.transaction(STORES, "readwrite");
  const all = transaction.objectStore("readings");
  const arrays = transaction.objectStore("large");
  const entries = transaction.objectStore("entries");
  const kept = await entries.getAll();
  const others = kept.filter(({ artwork }) => artwork !== entry.artwork);
  const gone = [entry, ...tooMany(others, entry.code, mostBytes - entry.bytes)].map(({ artwork }) => artwork);
  await Promise.all([
    ...gone.flatMap((artwork) => [all.delete(artwork), arrays.delete(allOf(artwork)), entries.delete(artwork)]),
    all.put(rest, entry.artwork),
    ...large.map((array, k) => arrays.put(array, [entry.artwork, k])),
    entries.put(entry),
    transaction.done,
  ]);
}

/** All that has an artwork's name and a number. */
function allOf(artwork: string): IDBKeyRange {
  return IDBKeyRange.bound([artwork], [artwork, Number.POSITIVE_INFINITY]);
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
