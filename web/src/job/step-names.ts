// The steps' names as they are read.
import type { JobStep } from "@plain-palette/contract";

export const STEP_NAMES: Readonly<Record<JobStep, string>> = {
  artwork: "Artwork",
  colours: "Colours",
  shapes: "Shapes",
  separations: "Separations",
  output: "Output",
  proof: "Proof",
};
