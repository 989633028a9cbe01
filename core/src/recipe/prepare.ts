// The client's picture with everything done to it: first laid upright in one resampling, then pixel by pixel in order.
import { parseHex, type Rgb } from "../colour/index.ts";
import {
  coverPolygon,
  coverStroke,
  cropFrame,
  drawLineArt,
  eraseCover,
  type Frame,
  fillSilhouette,
  fillSpecks,
  findSeeThrough,
  findSpecks,
  flipFrame,
  invertMap,
  keystoneFrame,
  mapLine,
  mapPoint,
  moveCover,
  paintCover,
  pickColour,
  type Raster,
  removePicked,
  resample,
  restoreCover,
  type SeeThrough,
  type SpeckSettings,
  scaleAt,
  settleSeeThrough,
  straightenFrame,
  turnFrame,
  wholeFrame,
} from "../raster/index.ts";
import { hashText } from "../steps/index.ts";
import { type Action, type ActionOf, isUpright, type PixelAction, type UprightAction } from "./actions.ts";

/** The prepared picture. */
export interface Prepared {
  readonly raster: Raster;
  /** The picture laid upright, before anything was done to its pixels. */
  readonly upright: Raster;
  readonly frame: Frame;
  /** What an action could not do, by its id; said beside it in the list. */
  readonly misfits: ReadonlyMap<string, string>;
  /** The picture before and after the action in focus; null if that is none that works on pixels. */
  readonly focus: { readonly before: Raster; readonly after: Raster } | null;
  /** Half-transparent areas that nobody has decided on: nothing under one half, solid from there on. */
  readonly seeThrough: SeeThrough | null;
}

/**
 * Pictures by what they were made from: the upright one, the one before the action that is being tuned, and the last. So
 * tuning one action costs that action and those after it. Also every action's misfit, since it is told again when skipped.
 */
export interface PrepareCache {
  readonly pictures: Map<string, Raster>;
  readonly misfits: Map<string, string>;
  /** The last picture, and what its half-transparent areas made of it. */
  settled: { readonly from: Raster; readonly raster: Raster; readonly seeThrough: SeeThrough | null } | null;
}

export function makePrepareCache(): PrepareCache {
  return { pictures: new Map(), misfits: new Map(), settled: null };
}

/** No picture larger than this comes of turning and laying flat, px: as the intake's limit, and some room to turn. */
const MAX_PIXELS = 130_000_000;

/** Where the upright picture lies, and what did not fit. */
export function layUpright(
  width: number,
  height: number,
  actions: readonly Action[],
): { readonly frame: Frame; readonly misfits: Map<string, string> } {
  const misfits = new Map<string, string>();
  let frame = wholeFrame(width, height);
  for (const action of actions) {
    if (!action.isOn || !isUpright(action)) continue;
    const next = layNext(frame, action);
    if (next && next.width * next.height <= MAX_PIXELS) frame = next;
    else misfits.set(action.id, next ? "would make the picture too large" : MISFITS[action.kind]);
  }
  return { frame, misfits };
}

const MISFITS: Readonly<Record<UprightAction["kind"], string>> = {
  turn: "",
  flip: "",
  straighten: "",
  keystone: "the four corners do not go round a sheet",
  crop: "lies outside the picture",
};

function layNext(frame: Frame, action: UprightAction): Frame | null {
  switch (action.kind) {
    case "turn":
      return turnFrame(frame, action.quarters);
    case "flip":
      return flipFrame(frame, action.axis);
    case "straighten":
      return straightenFrame(frame, action.angleDeg);
    case "keystone":
      return keystoneFrame(frame, action.corners, action.ratio);
    case "crop":
      return cropFrame(frame, action);
  }
}

/** White, where nobody says what the art goes on. */
const NO_GARMENT: Rgb = [255, 255, 255];

/**
 * Does all actions that are on. `focusId` is the action being tuned; without it, the last one. Results kept in `cache` are
 * of this source only.
 */
export function prepareArtwork(
  source: Raster,
  actions: readonly Action[],
  cache: PrepareCache,
  focusId: string | null = null,
  garment: Rgb = NO_GARMENT,
): Prepared {
  const { frame, misfits } = layUpright(source.width, source.height, actions);
  const steps = actions.filter((action): action is PixelAction => action.isOn && !isUpright(action));
  const keys = [hashText(JSON.stringify(frame))];
  for (const { id, isOn, ...settings } of steps) {
    const madeFrom = needsGarment(settings) ? { ...settings, garment } : settings;
    keys.push(hashText(keys[keys.length - 1] + JSON.stringify(madeFrom)));
  }
  const focus = focusId === null ? -1 : steps.findIndex(({ id }) => id === focusId);
  const tuned = focus < 0 ? steps.length - 1 : focus;

  const { pictures } = cache;
  const upright = pictures.get(keys[0]) ?? resample(source, frame);
  const made = new Map([[keys[0], upright]]);
  // With a focus the walk begins before it, so that both sides of it are at hand.
  let from = focus < 0 ? steps.length : focus;
  while (from > 0 && !pictures.has(keys[from])) from--;
  let raster = pictures.get(keys[from]) ?? upright;
  for (let i = from; ; i++) {
    if (i === tuned || i === tuned + 1 || i === steps.length) made.set(keys[i], raster);
    if (i >= steps.length) break;
    const ready = pictures.get(keys[i + 1]);
    if (ready) raster = ready;
    else {
      const after = doAction(raster, steps[i], { frame, upright, garment });
      raster = after.raster;
      if (after.misfit === null) cache.misfits.delete(keys[i + 1]);
      else cache.misfits.set(keys[i + 1], after.misfit);
    }
  }
  const before = made.get(keys[focus]);
  const after = made.get(keys[focus + 1]);
  for (let i = 0; i < steps.length; i++) {
    const misfit = cache.misfits.get(keys[i + 1]);
    if (misfit) misfits.set(steps[i].id, misfit);
  }
  const kept = tuned < 0 ? undefined : pictures.get(keys[tuned]);
  pictures.clear();
  for (const key of [keys[0], keys[tuned], keys[steps.length]]) {
    const picture = made.get(key) ?? (key === keys[tuned] ? kept : undefined);
    if (key !== undefined && picture) pictures.set(key, picture);
  }
  if (cache.settled?.from !== raster) {
    const found = findSeeThrough(raster);
    const settled = found ? settleSeeThrough(raster, found, "half", garment) : raster;
    cache.settled = { from: raster, raster: settled, seeThrough: found };
  }
  return {
    raster: cache.settled.raster,
    upright,
    frame,
    misfits,
    focus: focus >= 0 && before && after ? { before, after } : null,
    seeThrough: cache.settled.seeThrough,
  };
}

/** Whether an action's result depends on what the art goes on. */
export function needsGarment(action: { readonly kind: string; readonly treatment?: string }): boolean {
  return action.kind === "see-through" && action.treatment === "garment";
}

interface PictureAfter {
  readonly raster: Raster;
  readonly misfit: string | null;
}

/** What an action needs besides the picture before it. */
interface Surroundings {
  readonly frame: Frame;
  readonly upright: Raster;
  readonly garment: Rgb;
}

const OUTSIDE = "lies outside the picture";

/** The picture after one action; the same picture, with a reason, where there was nothing to do. */
function doAction(before: Raster, action: PixelAction, { frame, upright, garment }: Surroundings): PictureAfter {
  const fromSource = invertMap(frame.toSource);
  const scale = scaleOf(frame);
  const done = (raster: Raster): PictureAfter => ({ raster, misfit: null });
  const nothing = (misfit: string): PictureAfter => ({ raster: before, misfit });
  const { width, height } = before;
  switch (action.kind) {
    case "line-art":
      return done(
        drawLineArt(before, {
          ...action,
          windowPx: Math.round(action.windowPx * scale),
          weightPx: action.weightPx * scale,
        }),
      );
    case "pick": {
      const seeds = action.seeds.map((seed) => mapPoint(fromSource, seed));
      const { mask, count } = pickColour(before, { ...action, seeds, rgb: parseHex(action.hex) });
      return count === 0 ? nothing("finds nothing of its colour here") : done(removePicked(before, mask));
    }
    case "stroke": {
      const cover = coverStroke(mapLine(fromSource, action.points), action.radiusPx * scale, width, height);
      if (!cover) return nothing(OUTSIDE);
      if (action.mode === "erase") return done(eraseCover(before, cover));
      if (action.mode === "restore") return done(restoreCover(before, upright, cover));
      return done(paintCover(before, parseHex(action.hex), cover));
    }
    case "move-piece": {
      const cover = coverPolygon(mapLine(fromSource, action.outline), width, height);
      if (!cover) return nothing(OUTSIDE);
      const [x, y] = action.outline;
      const at = mapPoint(fromSource, { x, y });
      const to = mapPoint(fromSource, { x: x + action.dx, y: y + action.dy });
      return done(moveCover(before, cover, Math.round(to.x - at.x), Math.round(to.y - at.y)));
    }
    case "pinholes":
    case "specks": {
      const specks = findSpecks(before, speckSettings(action, frame));
      return specks.count === 0 ? nothing("finds nothing to do") : done(fillSpecks(before, specks));
    }
    case "silhouette":
      return done(fillSilhouette(before, parseHex(action.hex)));
    case "see-through": {
      const found = findSeeThrough(before);
      return found
        ? done(settleSeeThrough(before, found, action.treatment, garment))
        : nothing("finds nothing half-transparent");
    }
  }
}

/** Upright pixels to a client's pixel, in the middle of the picture. */
function scaleOf({ toSource, width, height }: Frame): number {
  return 1 / scaleAt(toSource, { x: width / 2, y: height / 2 });
}

/** What an action looks for, in upright pixels. */
export function speckSettings(action: ActionOf<"pinholes" | "specks">, frame: Frame): SpeckSettings {
  const scale = scaleOf(frame);
  const maxPx = action.maxPx * scale * scale;
  return action.kind === "pinholes"
    ? { maxPx, dark: false, light: false, holes: true }
    : { maxPx, dark: action.which !== "light", light: action.which !== "dark", holes: false };
}

/** Pixels of which an action takes at least half: 1, else 0. */
export function markTaken(before: Raster, after: Raster): Uint8Array {
  const mask = new Uint8Array(before.width * before.height);
  for (let p = 0, i = 3; p < mask.length; p++, i += 4) if (before.data[i] - after.data[i] >= 128) mask[p] = 1;
  return mask;
}
