// The files of a job made with transfer film.

import type { Rgb } from "../colour/index.ts";
import { CUT_FILES, type CutFormat, planCuts, writeCutDrawing, writeHpgl } from "../cut/index.ts";
import { type ShapeDrawing, writeShapesSvg } from "../formats/index.ts";
import { type CubicPath, linePath, mapPath, mirrorPath } from "../geometry/index.ts";
import { warnOfMissing } from "../labels/index.ts";
import type { Output, OutputFacts } from "../output/index.ts";
import type { Design, Outputs } from "../process/index.ts";
import type { Spot } from "../reduce/index.ts";
import { circlePath, spotPaths } from "../trace/index.ts";
import type { Layer, Layering } from "./layers.ts";
import type { Nesting } from "./nest.ts";
import { NAME_MM, placeOnRoll } from "./piece.ts";
import { planPress } from "./press-plan.ts";
import { writePressSheet } from "./press-sheet-pdf.ts";
import { PRINT_MARK_MM, type PrintedFilm } from "./printed.ts";
import { writePrintedPdf } from "./printed-pdf.ts";
import type { TransferSettings } from "./settings.ts";
import { planSheetCuts } from "./sheet-cuts.ts";
import type { FilmSheet } from "./sheets.ts";

/** Black, for what is no film; and what a line that is cut is drawn in. */
const BESIDE: Rgb = [0, 0, 0];
const CUT: Rgb = [255, 0, 255];

/** What is made of a design: its layers, and the rolls that they are cut from. */
export interface Transfer {
  readonly layering: Layering;
  readonly sheets: readonly FilmSheet[];
  /** Instead of them, where the art is printed in one piece. */
  readonly printed: PrintedFilm | null;
}

/** A transfer's files: layers, or the art printed in one piece. */
export function listTransferOutputs(
  made: Transfer,
  design: Design,
  settings: TransferSettings,
  facts: OutputFacts,
): Outputs {
  return made.printed
    ? listPrintedOutputs(made.printed, design, settings, facts)
    : listLayerOutputs(made, design, settings, facts);
}

/** The page to print, and the line to cut it along with the same marks, as the film lies on the cutter: printed side up. */
function listPrintedOutputs(
  film: PrintedFilm,
  { map, spots, picture, widthMm }: Design,
  { printed, formats }: TransferSettings,
  { date }: OutputFacts,
): Outputs {
  const page: Output = {
    name: "printed.pdf",
    mediaType: "application/pdf",
    make: async (tell) => {
      tell(0, "Drawing the art");
      const shapes = spots
        .filter(({ role }) => role === "ink")
        .map(({ id, rgb }) => ({ rgb, paths: spotPaths(map, id) }));
      return writePrintedPdf(
        film,
        {
          ...{ shapes, mmPerPx: widthMm / map.width, bleedMm: printed.bleedMm },
          picture: printed.art === "picture" ? picture : null,
        },
        date,
      );
    },
  };
  const cuts = formats.map((format) =>
    textFile(`cut-line.${CUT_FILES[format].ending}`, CUT_FILES[format].mediaType, () => {
      const size = { widthPx: film.widthMm, heightPx: film.heightMm, mmPerPx: 1 };
      // A plotter has nothing for marks but its own eye.
      if (format === "hpgl") return writeHpgl(planCuts(film.cutLine, { ...size, isMirrored: false }));
      const marks = film.marks.map(({ x, y }) => circlePath(x, y, PRINT_MARK_MM / 2, true));
      const lines = [
        { use: "cut", rgb: CUT, lines: film.cutLine },
        { use: "marks", rgb: BESIDE, lines: marks },
      ];
      return writeCutDrawing(format, { ...size, groups: [], lines });
    }),
  );
  return { outputs: [page, ...cuts], notes: [] };
}

/** A cut file of each layer, all layers as they are worn, all pieces on their rolls, and the press sheet. */
export function listLayerOutputs(
  { layering: whole, sheets: planned }: Transfer,
  design: Pick<Design, "spots" | "garment" | "placement" | "pieces">,
  settings: TransferSettings,
  facts: OutputFacts,
): Outputs {
  const { formats, isMirrored, decided } = settings;
  const { spots } = design;
  const isMade = ({ spotId }: { readonly spotId: string }) => decided[spotId]?.isLeftOut !== true;
  const layering = { ...whole, layers: whole.layers.filter(isMade) };
  const sheets = planned.filter(isMade);
  const spotOf = (id: string) => spots.find((spot) => spot.id === id);
  const inFormats = (name: string, write: (format: CutFormat) => string) =>
    formats.map((format) =>
      textFile(`${name}.${CUT_FILES[format].ending}`, CUT_FILES[format].mediaType, () => write(format)),
    );
  const cuts = layering.layers.flatMap((layer) =>
    inFormats(`layer-${layer.order}-${layer.spotId}`, (format) =>
      format === "hpgl"
        ? writeHpgl(planCuts(layer.region, { ...layering, isMirrored }))
        : writeCutDrawing(format, drawLayers(layering, [layer], spotOf, isMirrored)),
    ),
  );
  const rolls = sheets.flatMap((sheet) => {
    const { nesting, piece, roll, order, spotId } = sheet;
    if (!settings.sheets.isMade || !nesting) return [];
    return inFormats(`sheet-${order}-${spotId}`, (format) =>
      format === "hpgl"
        ? writeHpgl(planSheetCuts(piece, nesting, roll))
        : writeCutDrawing(format, drawSheet(sheet, nesting, spotOf(spotId))),
    );
  });
  const all = () => writeShapesSvg(drawLayers(layering, layering.layers, spotOf, false));
  const plan = planPress(layering, sheets, settings, design.pieces);
  const pressSheet: Output = {
    name: "press-sheet.pdf",
    mediaType: "application/pdf",
    // What writes PDF is large, and only wanted here.
    make: async (tell) => {
      tell(0, "Writing the press sheet");
      return writePressSheet({ layering, plan, design }, facts);
    },
  };
  const written = [facts.job, facts.client, ...plan.steps.flatMap(({ name, film }) => [name, film ?? ""])].join("");
  const missing = layering.layers.length > 0 ? warnOfMissing(written, facts.labelFont) : null;
  return {
    outputs: [
      ...cuts,
      textFile("layers.svg", CUT_FILES.svg.mediaType, all),
      ...rolls,
      ...(layering.layers.length > 0 ? [pressSheet] : []),
    ],
    notes: missing === null ? [] : [missing],
  };
}

const textFile = (name: string, mediaType: string, write: () => string): Output => ({
  name,
  mediaType,
  make: async () => new TextEncoder().encode(write()),
});

/** Layers as a drawing of shapes, in press order; nothing is drawn beside what is cut. */
function drawLayers(
  { widthPx, heightPx, mmPerPx }: Layering,
  layers: readonly Layer[],
  spotOf: (id: string) => Spot | undefined,
  isMirrored: boolean,
): ShapeDrawing {
  const laid = (path: CubicPath) => (isMirrored ? mirrorPath(path, widthPx) : path);
  const groups = layers.flatMap(({ spotId, region }) => {
    const spot = spotOf(spotId);
    return spot ? [{ spot, shapes: [region.map(laid)], under: [], seams: [] }] : [];
  });
  return { widthPx, heightPx, mmPerPx, groups };
}

/** A roll as a drawing in millimetres: the film of all pieces, and beside it what parts the waste and what a pen writes. */
function drawSheet(
  { piece, roll }: FilmSheet,
  { placements, lengthMm }: Nesting,
  spot: Spot | undefined,
): ShapeDrawing {
  const { film, marks, box, weedLines, name } = piece;
  const onRoll = (paths: readonly CubicPath[]) =>
    placements.map((placement) => paths.map((path) => mapPath(path, (x, y) => placeOnRoll(piece, placement, x, y))));
  const group = (use: string, lines: readonly CubicPath[]) =>
    lines.length > 0 ? [{ use, rgb: BESIDE, lines: onRoll(lines).flat() }] : [];
  const words = placements.flatMap((placement) => {
    if (!name) return [];
    const [x, y] = placeOnRoll(piece, placement, name.x, name.y);
    return [{ text: name.text, x, y, turnDeg: placement.isTurned ? 90 : 0 }];
  });
  const shapes = [...onRoll(film), ...onRoll(marks).flatMap((all) => all.map((mark) => [mark]))];
  return {
    ...{ widthPx: roll.widthMm, heightPx: lengthMm, mmPerPx: 1 },
    groups: spot ? [{ spot, shapes, under: [], seams: [] }] : [],
    lines: [...group("weed", weedLines.map(linePath)), ...group("box", box ? [linePath(box)] : [])],
    words: words.length > 0 ? [{ use: "pen", rgb: BESIDE, sizePx: NAME_MM, words }] : [],
  };
}
