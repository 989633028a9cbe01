// A template as a table of its own, in millimetres: holes as they are cut, and those by which it is laid.
import { layTemplates, type StoneSettings, type Stones } from "@plain-palette/core/stone";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePieces } from "../../light-table/pieces.ts";
import type { OwnTable } from "../screen.ts";

/** The first of the job's templates; null where nothing is set. */
export function templateTable(made: Stones, { split, isMirrored }: StoneSettings["template"]): OwnTable | null {
  const templates = layTemplates(made.stones, made, split, isMirrored);
  const [template] = templates;
  if (!template || made.stones.length === 0) return null;
  const { widthPx, heightPx, lines = [] } = template.drawing;
  const holes = lines.flatMap(({ use, lines: paths }) => (use === "register" ? [] : paths));
  const registers = lines.flatMap(({ use, lines: paths }) => (use === "register" ? paths : []));
  const layers: TableLayer[] = [
    { kind: "sheet", colour: "#f4f1ea", x: 0, y: 0, width: widthPx, height: heightPx, hasEdge: true },
    { kind: "fills", fills: [{ colour: "#4b4a45", path: makePieces(holes, true) }] },
    { kind: "strokes", path: makePieces(registers, true), colour: "#d0006f", screenPx: 1.5 },
  ];
  const others = templates.length > 1 ? `, the first of ${templates.length}` : "";
  return {
    name: "template",
    ...{ width: widthPx, height: heightPx, mmPerUnit: 1, layers },
    caption: {
      text: `Template of ${template.stones} holes${others}`,
      note: isMirrored ? "Mirrored: cut from the back." : "Right-reading.",
    },
    placeOf: null,
  };
}
