// All that reading needs is read itself, before a process gives up its rights.
import { loadAllParts } from "@plain-palette/core/later";
import { prepareBmp } from "./bmp.ts";

export async function prepareIntake(): Promise<void> {
  await Promise.all([prepareBmp(), loadAllParts()]);
}
