import type { Components } from "../../raster/index.ts";
import type { BoundaryPoints } from "./boundary.ts";
import type { ChainGraph } from "./chains.ts";
import type { ReadyLine } from "./ready-line.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** The boundaries of one label map, ready to be fitted. */
export interface LabelReading {
  readonly picture: TracedPicture;
  readonly components: Components;
  /** Spot of every label. */
  readonly spotIds: readonly string[];
  readonly graph: ChainGraph;
  readonly boundaries: readonly BoundaryPoints[];
  /** Where junctions lie, x, y pairs. */
  readonly vertices: Float64Array;
  /** For every chain, or null on the picture's edge. */
  readonly lines: readonly (ReadyLine | null)[];
  readonly cornerCosine: number;
}
