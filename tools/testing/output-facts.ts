// What every process is told of the job when a test has its files made.
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import type { OutputFacts } from "@plain-palette/core/output";

const FONT = fileURLToPath(import.meta.resolve("dejavu-fonts-ttf/ttf/DejaVuSans.ttf"));

export const FACTS: OutputFacts = {
  job: "7 Tern",
  client: "Tern Island Ferry",
  date: new Date(0),
  labelFont: readFileSync(FONT),
};
