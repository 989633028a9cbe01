// The steps' names as they are read.
import type { JobCard } from "@plain-palette/contract";

export const STEP_NAMES = {
  artwork: "Artwork",
  colours: "Colours",
  shapes: "Shapes",
  output: "Output",
  proof: "Proof",
} as const;

/** How far a job has come, in words. */
export function nameStep({ step, makeTitle }: Pick<JobCard, "step" | "makeTitle">): string {
  return step === "make" ? makeTitle : STEP_NAMES[step];
}
