// A stitch plan as it lies on the table: thread that catches the light by its direction, needle points, ways, and density.
import type { Rgb } from "@plain-palette/core/colour";
import {
  COMMANDS,
  DENSITY_CELL_MM,
  type HoopChoice,
  measureDensity,
  STITCH_KINDS,
  type StitchPlan,
  THREAD_MM,
} from "@plain-palette/core/stitch";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePolylinePieces, makeSquarePieces } from "../../light-table/pieces.ts";
import { onArt } from "../areas/on-table.ts";

/** Thread is drawn in so many shades, from along the light to across it. */
const SHADES = 8;
/** How much darker thread across the light is than along it, as a share (our own, by eye). */
const DARKER = 0.24;
/** Light falls from the upper left, flatter than the usual rows lie, so that both of their angles differ. */
const LIGHT: readonly [number, number] = [0.94, 0.34];
/** Seen from afar thread fills what lies between it and the next: the line is a little wider than thread. */
const DRAWN_MM = THREAD_MM * 1.12;
/** Shorter, and a stitch is a turn, mm. */
const TURN_MM = 0.9;
/** Hoops have round corners, mm (our own). */
const HOOP_CORNER_MM = 8;
/** Thread is drawn by squares of this side, mm, in runs of so many stitches: what is looked at is drawn, and little beside it. */
const SQUARE_MM = 12;
const RUN = 40;
/** What holds the cloth lies below, and hardly shows. */
const UNDER: ReadonlySet<string> = new Set(["way", "underlay", "tie", "guide"]);

const isStitch = (plan: StitchPlan, i: number) => COMMANDS[plan.command[i] ?? 0] === "stitch";

/** The shade of a stitch, 0 along the light. */
export function shadeOf(dx: number, dy: number): number {
  const length = Math.hypot(dx, dy);
  if (length === 0) return 0;
  const along = Math.abs((dx * LIGHT[0] + dy * LIGHT[1]) / length);
  return Math.min(SHADES - 1, Math.floor((1 - along) * SHADES));
}

/** A thread's colour in a shade, as CSS has it. */
export function shaded([r, g, b]: Rgb, shade: number): string {
  // The lightest is a little lighter than the thread's own colour, the darkest darker.
  const share = 1.06 - (DARKER * shade) / (SHADES - 1);
  return `rgb(${[r, g, b].map((value) => Math.round(Math.min(255, value * share))).join(" ")})`;
}

/** All thread of a plan, colours in the order of sewing; those that are hidden left out. */
export function threadLayers(plan: StitchPlan, hidden: ReadonlySet<string>, mmPerPx: number): TableLayer[] {
  const transform = onArt(mmPerPx);
  const lines = plan.colours.map(() => Array.from({ length: 2 * SHADES }, (): number[][] => []));
  let shade = 0;
  for (let i = 1; i < plan.command.length; i++) {
    if (!isStitch(plan, i) || !isStitch(plan, i - 1)) continue;
    const from = [plan.x[i - 1] ?? 0, plan.y[i - 1] ?? 0] as const;
    const to = [plan.x[i] ?? 0, plan.y[i] ?? 0] as const;
    // The last stitch of a way leads to where what covers begins.
    const isUnder = [i - 1, i].some((k) => UNDER.has(STITCH_KINDS[plan.kind[k] ?? 0] ?? ""));
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    // Where a row turns into the next no other side of the thread is seen.
    if (Math.hypot(dx, dy) >= TURN_MM) shade = shadeOf(dx, dy);
    const group = lines[plan.colour[i] ?? 0]?.[shade + (isUnder ? 0 : SHADES)];
    const last = group?.at(-1);
    // A stitch that goes on from the last of its shade is drawn on with it.
    if (last && last.length < 2 * RUN && last.at(-2) === from[0] && last.at(-1) === from[1]) last.push(...to);
    else group?.push([...from, ...to]);
  }
  return plan.colours.flatMap(({ spotId, rgb }, c) =>
    hidden.has(spotId)
      ? []
      : (lines[c] ?? []).flatMap((group, shade): TableLayer[] =>
          group.length === 0
            ? []
            : [
                {
                  ...{ kind: "strokes", path: makeSquarePieces(group, SQUARE_MM), transform, width: DRAWN_MM },
                  colour: shaded(rgb, shade % SHADES),
                },
              ],
        ),
  );
}

/** The inner edge of the hoop, the design in its middle. */
export function hoopLayer(plan: StitchPlan, { widthMm, heightMm, isTurned }: HoopChoice, mmPerPx: number): TableLayer {
  const [width, height] = isTurned ? [heightMm, widthMm] : [widthMm, heightMm];
  const px = (mm: number) => mm / mmPerPx;
  const path = new Path2D();
  path.roundRect(
    ...[px((plan.widthMm - width) / 2), px((plan.heightMm - height) / 2), px(width), px(height)],
    px(HOOP_CORNER_MM),
  );
  return { kind: "strokes", path, colour: "#5c5952", screenPx: 1.5 };
}

/** Where the needle goes down. */
export function needleLayer(plan: StitchPlan, mmPerPx: number): TableLayer {
  const points: number[] = [];
  for (let i = 0; i < plan.command.length; i++)
    if (isStitch(plan, i)) points.push((plan.x[i] ?? 0) / mmPerPx, (plan.y[i] ?? 0) / mmPerPx);
  return { kind: "nodes", points: Float64Array.from(points), colour: "#1e1d1a" };
}

/** Ways that are sewn, and jumps of the needle. */
export function wayLayers(plan: StitchPlan, mmPerPx: number): TableLayer[] {
  const [sewn, jumped]: [number[][], number[][]] = [[], []];
  for (let i = 1; i < plan.command.length; i++) {
    const line = [plan.x[i - 1] ?? 0, plan.y[i - 1] ?? 0, plan.x[i] ?? 0, plan.y[i] ?? 0].map((mm) => mm / mmPerPx);
    if (COMMANDS[plan.command[i] ?? 0] === "jump") jumped.push(line);
    else if (isStitch(plan, i) && STITCH_KINDS[plan.kind[i] ?? 0] === "way") sewn.push(line);
  }
  const lines = (path: number[][], colour: string, dashPx?: number): TableLayer => ({
    ...{ kind: "strokes", path: makePolylinePieces(path), colour, screenPx: 1.4, isHaloed: true, dashPx },
  });
  return [lines(sewn, "#0b6a4f"), lines(jumped, "#b3261e", 5)];
}

/** How closely stitches lie, up to where cloth is cut. */
export function densityLayer(plan: StitchPlan, mostPerMm2: number, mmPerPx: number): TableLayer {
  const { columns, perMm2 } = measureDensity(plan);
  const steps = DENSITY_COLOURS.map((colour) => ({ colour, path: new Path2D() }));
  perMm2.forEach((value, cell) => {
    if (value === 0) return;
    const step = Math.min(steps.length - 1, Math.floor((value / mostPerMm2) * (steps.length - 1)));
    const [x, y] = [(cell % columns) * DENSITY_CELL_MM, Math.floor(cell / columns) * DENSITY_CELL_MM];
    steps[step]?.path.rect(x, y, DENSITY_CELL_MM, DENSITY_CELL_MM);
  });
  return { kind: "fills", fills: steps, transform: onArt(mmPerPx) };
}

/** From open to as close as cloth bears, and closer. */
export const DENSITY_COLOURS = [
  "rgb(214 226 236 / .8)",
  "rgb(150 186 210 / .8)",
  "rgb(86 140 176 / .85)",
  "rgb(30 90 130 / .85)",
  "rgb(179 38 30 / .9)",
];
