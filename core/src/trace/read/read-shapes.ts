// What the pixels say of the shapes, whatever the tolerance of their curves: regions, boundaries with their points and
// corners, and where they meet. The costly half of tracing; a new tolerance does without it.
import { type Components, findComponents, type LabelMap, NONE, relabel, sineAndCosine } from "../../raster/index.ts";
import type { Assignment, Findings, Reduction, UnderLine } from "../../reduce/index.ts";
import { absorbSpecks, keepCounters } from "./absorb-specks.ts";
import { readBoundary } from "./boundary.ts";
import { followChains } from "./chains.ts";
import { placeJunctions } from "./junctions.ts";
import type { LabelReading } from "./label-reading.ts";
import { readyChain } from "./ready-line.ts";
import { findSameChains, hasSameEnds, sameReading } from "./same-chains.ts";
import { anyOf, testSlivers } from "./slivers.ts";
import { testThinLines } from "./thin-lines.ts";
import type { TracedPicture } from "./traced-picture.ts";

/** The person's decisions about what is a shape and what a corner, part of the recipe. */
export interface ReadSettings {
  /** Smallest turn that is a corner, degrees: smaller ones are rounded. */
  readonly cornerDeg: number;
  /** Regions of at most this many pixels across (squared: pixels of area) are specks. */
  readonly specksPx: number;
  /** Regions narrower than this go to their neighbour, source pixels. */
  readonly thinnestPx: number;
  /** Whether small lettering is kept crisp, its counters from going with the specks, too. */
  readonly keepsText: boolean;
}

/** What a fill runs under, and where it lies. */
interface UnderReading extends LabelReading {
  readonly x: number;
  readonly y: number;
  readonly from: UnderLine;
}

/** A reduced picture's boundaries, and those of what fills run under. */
export interface ShapesReading extends LabelReading {
  readonly underLines: readonly UnderReading[];
}

/** Reads the boundaries of a reduced picture; those that are as in the `last` reading are taken from it. */
export function readShapes(
  findings: Findings,
  reduction: Reduction,
  assignment: Assignment,
  settings: ReadSettings,
  last: ShapesReading | null = null,
): ShapesReading {
  const { spots, components } = labelSpots(findings, assignment, reduction, settings);
  const picture: TracedPicture = {
    raster: findings.raster,
    found: findings.labels,
    foundColours: findings.found.map((colour) => colour.rgb),
    spots,
    assigned: assignment.spotOfPixel,
    spotColours: reduction.spots.map((spot) => spot.pictureRgb),
    noise: findings.noise,
  };
  const spotIds = reduction.spots.map((spot) => spot.id);
  const { cos } = sineAndCosine(settings.cornerDeg);
  const isDropped = new Set(reduction.spots.filter(({ role }) => role === "drop").map(({ id }) => id));
  const underLines = assignment.underLines.filter(({ spotId }) => !isDropped.has(spotId));
  return {
    ...readLabels(picture, components, spotIds, cos, last),
    // An area that was poured before is not read again.
    underLines: underLines.map(
      (under) =>
        last?.underLines.find(({ from, cornerCosine }) => from === under && cornerCosine === cos) ??
        readUnder(under, cos),
    ),
  };
}

/** The label map with nothing where a spot is dropped; itself where none is. */
function withoutDropped(map: LabelMap, { spots }: Reduction): LabelMap {
  if (!spots.some(({ role }) => role === "drop")) return map;
  return relabel(
    map,
    Uint8Array.from({ length: 256 }, (_, spot) => (spots[spot]?.role === "drop" ? NONE : spot)),
  );
}

/** Label map of spots after "drop" and specks, with its regions: what is traced. */
function labelSpots(
  findings: Findings,
  assignment: Assignment,
  reduction: Reduction,
  { specksPx, thinnestPx, keepsText }: ReadSettings,
): { spots: LabelMap; components: Components } {
  const withSpecks = withoutDropped(assignment.spotOfPixel, reduction);
  const components = findComponents(withSpecks);
  const isNarrow = anyOf(
    testSlivers(findings, reduction, components),
    testThinLines(components, withSpecks, thinnestPx),
  );
  // A noisy picture has specks in small letters, too.
  const isKept = keepsText && findings.noise === 0 ? keepCounters(components, withSpecks.width) : undefined;
  const spots = absorbSpecks(withSpecks, components, specksPx * specksPx, isNarrow, isKept);
  return { spots, components: spots === withSpecks ? components : findComponents(spots) };
}

function readLabels(
  picture: TracedPicture,
  components: Components,
  spotIds: readonly string[],
  cornerCosine: number,
  last: LabelReading | null = null,
): LabelReading {
  const graph = followChains(picture.spots, components);
  const same = last ? findSameChains(picture, graph, last) : null;
  const boundaries = graph.chains.map((chain, e) => {
    if (!last || !same || same.walked[e] < 0) return readBoundary(picture, chain);
    if (same.untouched[e] >= 0) return last.boundaries[same.untouched[e]];
    return sameReading(readBoundary(picture, chain), last.boundaries[same.walked[e]]);
  });
  const vertices = placeJunctions(graph, boundaries, picture);
  const lines = graph.chains.map((chain, e) => {
    const before = same ? same.walked[e] : -1;
    const isAsRead = last !== null && before >= 0 && boundaries[e] === last.boundaries[before];
    if (isAsRead && cornerCosine === last.cornerCosine && hasSameEnds(chain, vertices, last, before))
      return last.lines[before];
    return readyChain(chain, boundaries[e], vertices, picture, cornerCosine);
  });
  return { picture, components, spotIds, graph, boundaries, vertices, lines, cornerCosine };
}

/** What a fill runs under lies hidden below the lines, so that the grid's own position is enough. */
function readUnder(from: UnderLine, cornerCosine: number): UnderReading {
  const { x, y, mask, spotId } = from;
  const { width, height } = mask;
  const picture = {
    raster: { width, height, data: new Uint8ClampedArray(width * height * 4) },
    found: mask,
    foundColours: [[0, 0, 0]],
    spots: mask,
    assigned: mask,
    spotColours: [[0, 0, 0]],
    noise: 0,
  } as const;
  return { ...readLabels(picture, findComponents(mask), [spotId], cornerCosine), x, y, from };
}
