// A roll of film with the job's pieces on it, as a table of its own, in millimetres.
import { formatHex } from "@plain-palette/core/colour";
import { linePath, mapPath } from "@plain-palette/core/geometry";
import { type FilmSheet, type Layering, placeOnRoll } from "@plain-palette/core/transfer";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePieces } from "../../light-table/pieces.ts";
import type { OwnTable } from "../screen.ts";

/** So much of a roll is shown, as a share of its width: pieces are alike, and those of a long roll would be too small to see. */
const SHOWN = 1.25;

/** Null where a piece does not go on its roll. */
export function rollTable(sheet: FilmSheet, layering: Layering, isMirrored: boolean): OwnTable | null {
  const { nesting, piece, roll, name, spotId } = sheet;
  const layer = layering.layers.find((one) => one.spotId === spotId);
  if (!nesting || !layer) return null;
  const pieceMm = Math.max(piece.widthMm, piece.heightMm);
  const shownMm = Math.min(nesting.lengthMm, Math.max(SHOWN * roll.widthMm, pieceMm));
  const placements = nesting.placements.filter(({ y }) => y < shownMm);
  const onRoll = (paths: readonly Float64Array[]) =>
    placements.flatMap((placement) =>
      paths.map((path) => mapPath(path, (x, y) => placeOnRoll(piece, placement, x, y))),
    );
  const beside = [...piece.weedLines, ...(piece.box ? [piece.box] : [])].map(linePath);
  const note = isMirrored
    ? "Mirrored, as film lies on the cutter: its adhesive side is up."
    : "Right-reading: the face of the film is up.";
  const layers: TableLayer[] = [
    { kind: "sheet", colour: "#f4f6f5", x: 0, y: 0, width: roll.widthMm, height: shownMm, hasEdge: true },
    {
      kind: "fills",
      fills: [{ colour: formatHex(layer.rgb), path: makePieces(onRoll([...piece.film, ...piece.marks]), true) }],
    },
    { kind: "strokes", path: makePieces(onRoll(beside), false), colour: "#4b4a45", screenPx: 1 },
  ];
  return {
    name: `roll ${spotId}`,
    ...{ width: roll.widthMm, height: shownMm, mmPerUnit: 1, layers },
    caption: {
      text: `Roll of ${name}${shownMm < nesting.lengthMm ? `, its first ${inMetres(shownMm)} of ${inMetres(nesting.lengthMm)}` : ""}`,
      note,
    },
    placeOf: null,
  };
}

const inMetres = (mm: number) => `${(mm / 1000).toFixed(2)} m`;
