// A whole job at the cutter and the press, as its files alone tell it: what was planned is only looked at to compare.
import { type CutFault, type Cutter, findFaults } from "./cutter.ts";
import { type Plot, readPlot } from "./read-plot.ts";
import { differ, type Mask, turnOver, weed } from "./weed.ts";

/** A layer as it was planned: its place in the press order, its id, and what of the art it covers, as it is worn. */
export interface PlannedLayer {
  readonly order: number;
  readonly id: string;
  readonly mask: Mask;
}

export interface CutLayer {
  readonly order: number;
  readonly id: string;
  readonly plot: Plot;
  /** As it lies on the shirt. */
  readonly film: Mask;
  readonly extraMm2: number;
  readonly missingMm2: number;
}

export type JobFault = Omit<CutFault, "kind"> & {
  readonly kind: CutFault["kind"] | "missing layer" | "not mirrored" | "not the plan";
  /** The file that it is in, or should be. */
  readonly file: string;
};

export interface CutJob {
  readonly layers: readonly CutLayer[];
  readonly faults: readonly JobFault[];
}

/** Film may differ from the plan by a picture's grain along its edges: by so much, and by this share of it, mm2. */
const GRAIN_MM2 = 4;
const GRAIN_SHARE = 0.02;

/** Cuts all layers of a job from its files (by name) and lays them against the plan. Film is cut from its back: it is turned over. */
export function cutJob(files: ReadonlyMap<string, string>, planned: readonly PlannedLayer[], cutter: Cutter): CutJob {
  const layers: CutLayer[] = [];
  const faults: JobFault[] = [];
  for (const { order, id, mask } of planned) {
    const file = `layer-${order}-${id}.plt`;
    const text = files.get(file);
    if (text === undefined) {
      faults.push({ kind: "missing layer", text: "there is no such file", file, x: 0, y: 0 });
      continue;
    }
    const plot = readPlot(text);
    faults.push(...findFaults(plot, cutter).map((fault) => ({ ...fault, file })));
    const { perMm } = mask;
    const onCutter = weed(plot, { widthMm: mask.width / perMm, heightMm: mask.height / perMm, perMm });
    const film = turnOver(onCutter);
    const difference = differ(film, mask);
    const [off, unturned] = [difference, differ(onCutter, mask)].map(
      ({ extraMm2, missingMm2 }) => extraMm2 + missingMm2,
    );
    const planMm2 = mask.data.reduce((sum, one) => sum + one, 0) / mask.perMm ** 2;
    const place = { file, x: 0, y: 0 };
    if ((off ?? 0) > GRAIN_MM2 + GRAIN_SHARE * planMm2)
      faults.push(
        (unturned ?? 0) < (off ?? 0) / 4
          ? { kind: "not mirrored", text: "cut as it is worn: it comes off the wrong way round", ...place }
          : { kind: "not the plan", text: `${(off ?? 0).toFixed(0)} mm2 differ from the plan`, ...place },
      );
    layers.push({ order, id, plot, film, ...difference });
  }
  return { layers, faults };
}
