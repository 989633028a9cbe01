// Edits one after the other: each works on what those before it have left.

import type { CubicPath } from "../geometry/index.ts";
import { layOutlines } from "../lay/index.ts";
import { type Drawing, type PlanarMap, simplifyMap } from "../trace/index.ts";
import { brushLines } from "./brush-lines.ts";
import { changeLines } from "./change-lines.ts";
import { type Edit, LOST, TANGLED } from "./edits.ts";
import { makeRound } from "./make-round.ts";
import { findPieces, movePieces, spotsAround } from "./move-pieces.ts";

/** An edit with the name by which it is told of. */
export interface NamedEdit {
  readonly id: string;
  readonly edit: Edit;
}

/** The drawing after all edits. */
export interface Edited {
  readonly drawing: Drawing;
  /** Edits that change nothing, with the reason, by their name. */
  readonly misfits: ReadonlyMap<string, string>;
  readonly memory: EditMemory;
}

/** What edits made last, one after the other: those that have not changed, up to the first that has, are not made again. */
export interface EditMemory {
  readonly of: Drawing;
  readonly steps: readonly { readonly key: string; readonly drawing: Drawing; readonly misfit: string | null }[];
}

/** Applies edits in their order. Simplifications that follow each other are one: the largest tolerance holds. */
export function applyEdits(traced: Drawing, edits: readonly NamedEdit[], memory: EditMemory | null = null): Edited {
  const steps: { key: string; drawing: Drawing; misfit: string | null }[] = [];
  const known = memory?.of === traced ? memory.steps : [];
  const misfits = new Map<string, string>();
  let drawing = traced;
  let isKnown = true;
  for (const run of inRuns(edits)) {
    const key = JSON.stringify(
      run.map(({ edit }) => edit),
      withArrays,
    );
    const before = known[steps.length];
    isKnown = isKnown && before?.key === key;
    const done = isKnown && before ? before : { key, ...applyRun(drawing, run) };
    steps.push(done);
    drawing = done.drawing;
    if (done.misfit) for (const { id } of run) misfits.set(id, done.misfit);
  }
  return { drawing, misfits, memory: { of: traced, steps } };
}

/** JSON has no words for typed arrays. */
function withArrays(_: string, value: unknown): unknown {
  return value instanceof Float64Array ? Array.from(value) : value;
}

function inRuns(edits: readonly NamedEdit[]): NamedEdit[][] {
  const runs: NamedEdit[][] = [];
  for (const one of edits) {
    const last = runs.at(-1);
    if (last && one.edit.kind === "simplify" && last[0].edit.kind === "simplify") last.push(one);
    else runs.push([one]);
  }
  return runs;
}

function applyRun(drawing: Drawing, run: readonly NamedEdit[]): { drawing: Drawing; misfit: string | null } {
  const { edit } = run[0];
  const simplifications = run.flatMap((one) => (one.edit.kind === "simplify" ? [one.edit] : []));
  const made = simplifications.length > 0 ? simplifyMap(drawing, simplifications) : applyEdit(drawing, edit);
  return typeof made === "string" ? { drawing, misfit: made } : { drawing: made, misfit: null };
}

/** The drawing with one edit, or why it changes nothing. */
export function applyEdit(drawing: Drawing, edit: Edit): Drawing | string {
  switch (edit.kind) {
    case "simplify":
      return simplifyMap(drawing, [edit]);
    case "line":
      return changeLines(drawing, edit.changes);
    case "lay": {
      const laid = lay(drawing, edit);
      if (typeof laid === "string" || edit.spotId !== null || edit.onlyOn !== null) return laid;
      return holedBelow(laid, edit.paths);
    }
    case "stack":
      return layStack(drawing, edit);
    case "none":
      return edit.reason;
    case "cut":
      return cut(drawing, edit);
    case "pieces":
      return movePieces(drawing, edit);
    case "round":
      return makeRound(drawing, edit);
    case "brush":
      return brushLines(drawing, edit);
  }
}

/** A hole goes through what lies below, too. */
function holedBelow(drawing: Drawing, paths: readonly CubicPath[]): Drawing {
  const hole = { kind: "lay", paths, spotId: null, isHeld: true, onlyOn: null } as const;
  const below = drawing.below.map((layer) => {
    const laid = lay(layer, hole);
    return typeof laid === "string" ? layer : laid;
  });
  return { ...drawing, below };
}

function layStack(drawing: Drawing, { layers, over = [] }: Extract<Edit, { kind: "stack" }>): Drawing | string {
  const gone = findPieces(drawing, over);
  if (!gone) return LOST;
  const around = spotsAround(drawing, gone);
  const top = (windings: readonly number[]) => layers.findLastIndex((_, k) => windings[k] !== 0);
  let isAnywhere = false;
  const laid = layOutlines(drawing, {
    laid: layers.map(({ paths }) => ({ paths, isHeld: true })),
    decide: ({ face, windings, spotId }) => {
      const layer = layers[top(windings)];
      isAnywhere ||= layer !== undefined;
      if (layer) return layer.spotId;
      const surrounding = around.get(face);
      return surrounding === undefined ? spotId : surrounding;
    },
  });
  if (laid === null) return TANGLED;
  if (!isAnywhere) return LOST;
  const holes = layers.filter(({ spotId }) => spotId === null);
  return holes.reduce((so, { paths }) => holedBelow(so, paths), laid);
}

function lay<M extends PlanarMap>(
  map: M,
  { paths, spotId, isHeld, onlyOn }: Extract<Edit, { kind: "lay" }>,
): M | string {
  let isAnywhere = false;
  const laid = layOutlines(map, {
    laid: [{ paths, isHeld }],
    decide: (cell) => {
      const isMeant = cell.windings[0] !== 0 && (onlyOn === null || cell.spotId === onlyOn);
      isAnywhere ||= isMeant;
      return isMeant ? spotId : cell.spotId;
    },
  });
  return laid === null ? TANGLED : isAnywhere ? laid : LOST;
}

function cut<M extends PlanarMap>(map: M, { path, spotId }: Extract<Edit, { kind: "cut" }>): M | string {
  const laid = layOutlines(map, {
    laid: [{ paths: [path], isCut: true }],
    keepsCut: (spot) => spot === spotId,
    decide: (cell) => cell.spotId,
  });
  if (!laid) return TANGLED;
  return laid.faces.length > map.faces.length ? laid : LOST;
}
