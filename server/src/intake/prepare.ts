// All that reading needs is read itself, before a process gives up its rights.
import { openTypeface } from "@plain-palette/core/typeface";
import { prepareBmp } from "./bmp.ts";

export async function prepareIntake(): Promise<void> {
  await Promise.all([prepareBmp(), openTypeface("", [])]);
}
