// Plates of a separations file as ghostscript's tiffsep device finds them, one grey picture each.
import { execFile } from "node:child_process";
import { mkdtempSync, readdirSync } from "node:fs";
import { join } from "node:path";
import { promisify } from "node:util";
import sharp from "sharp";

/** 0 is full ink, 255 none. */
export interface PlatePicture {
  readonly data: Buffer;
  readonly width: number;
  readonly height: number;
}

const PROCESS = ["Cyan", "Magenta", "Yellow", "Black"];

/** Spot plates by their name, and the four process ones, which are to be empty. */
export async function readPlates(pdf: string, dpi: number, folder: string) {
  const into = mkdtempSync(join(folder, "sep-"));
  await promisify(execFile)("gs", [
    ...["-q", "-dNOPAUSE", "-dBATCH", "-dSAFER", "-sDEVICE=tiffsep", `-r${dpi}`],
    ...[`-sOutputFile=${join(into, "p.tif")}`, pdf],
  ]);
  const read = async (name: string): Promise<PlatePicture> => {
    const file = sharp(join(into, `p(${name}).tif`)).greyscale();
    const { data, info } = await file.raw().toBuffer({ resolveWithObject: true });
    return { data, width: info.width, height: info.height };
  };
  const names = readdirSync(into).flatMap((file) => /^p\((.*)\)\.tif$/.exec(file)?.[1] ?? []);
  const all = new Map(await Promise.all(names.map(async (name) => [name, await read(name)] as const)));
  const isProcess = ([name]: readonly [string, PlatePicture]) => PROCESS.includes(name);
  return { spots: new Map([...all].filter((one) => !isProcess(one))), process: [...all].filter(isProcess) };
}
