// Decoded pixels, kept in files so that opening a job again decodes nothing: the longest unused go when they are too many.
import { mkdir, readdir, readFile, rename, rm, stat, utimes, writeFile } from "node:fs/promises";
import { join } from "node:path";
import { deserialize, serialize } from "node:v8";
import type { PackedPixels } from "./pixels.ts";

export interface PixelCache {
  /** Null if they are not kept. */
  get(key: string): Promise<PackedPixels | null>;
  /** Never fails: what cannot be kept is decoded again. */
  put(key: string, pixels: PackedPixels): Promise<void>;
  /** What is kept. */
  size(): Promise<{ files: number; bytes: number }>;
}

/** Tells the files of an earlier form from today's. */
const FORM = "1";

/** So much is left when some went: the folder is not looked through for every picture that comes. */
const LEFT_SHARE = 0.9;

/** Keeps them in `folder`, at most `mostBytes` of them. */
export function openPixelCache(folder: string, mostBytes: number): PixelCache {
  const pathOf = (key: string) => join(folder, `${key}.${FORM}.pixels`);
  const list = async () => {
    const names = await readdir(folder).catch(() => []);
    const all = await Promise.all(
      names.map(async (name) => {
        const path = join(folder, name);
        const facts = await stat(path).catch(() => null);
        return facts && { path, bytes: facts.size, used: facts.mtimeMs };
      }),
    );
    return all.filter((one) => one !== null);
  };
  /** Bytes in the folder, or a few more; null until it was looked through. */
  let known: number | null = null;
  const tidy = async (): Promise<void> => {
    const all = await list();
    let bytes = all.reduce((sum, one) => sum + one.bytes, 0);
    const most = bytes > mostBytes ? LEFT_SHARE * mostBytes : mostBytes;
    for (const one of all.sort((a, b) => a.used - b.used)) {
      if (bytes <= most) break;
      await rm(one.path, { force: true });
      bytes -= one.bytes;
    }
    known = bytes;
  };
  return {
    async get(key) {
      try {
        const path = pathOf(key);
        const pixels: PackedPixels = deserialize(await readFile(path));
        const now = new Date();
        await utimes(path, now, now);
        return pixels;
      } catch {
        return null;
      }
    },
    async put(key, pixels) {
      const draft = join(folder, `${key}.${process.pid}.draft`);
      try {
        await mkdir(folder, { recursive: true, mode: 0o700 });
        const packed = serialize(pixels);
        await writeFile(draft, packed, { mode: 0o600 });
        await rename(draft, pathOf(key));
        if (known !== null) known += packed.length;
        if (known === null || known > mostBytes) await tidy();
      } catch {
        await rm(draft, { force: true }).catch(() => {});
      }
    },
    async size() {
      const all = await list();
      return { files: all.length, bytes: all.reduce((sum, one) => sum + one.bytes, 0) };
    },
  };
}
