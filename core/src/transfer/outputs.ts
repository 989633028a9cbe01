// The files of a job made with transfer film.
import { type ShapeDrawing, writeShapesDxf, writeShapesSvg } from "../formats/index.ts";
import { type CubicPath, mirrorPath } from "../geometry/index.ts";
import type { Output } from "../output/index.ts";
import type { Outputs } from "../process/index.ts";
import type { Spot } from "../reduce/index.ts";
import { planCuts } from "./cut-plan.ts";
import { writeHpgl } from "./hpgl.ts";
import type { Layer, Layering } from "./layers.ts";
import type { CutFormat, TransferSettings } from "./settings.ts";

/** What each format is as a file. */
const FILES: Readonly<Record<CutFormat, { readonly ending: string; readonly mediaType: string }>> = {
  svg: { ending: "svg", mediaType: "image/svg+xml" },
  dxf: { ending: "dxf", mediaType: "image/vnd.dxf" },
  hpgl: { ending: "plt", mediaType: "application/vnd.hp-hpgl" },
};

/** A cut file of each layer in each format asked for, as it lies on the cutter, and all layers as they are worn. */
export function listLayerOutputs(layering: Layering, spots: readonly Spot[], settings: TransferSettings): Outputs {
  const { formats, isMirrored } = settings;
  const file = (name: string, mediaType: string, write: () => string): Output => ({
    name,
    mediaType,
    make: async () => new TextEncoder().encode(write()),
  });
  const cuts = layering.layers.flatMap((layer) =>
    formats.map((format) => {
      const { ending, mediaType } = FILES[format];
      const write = () => writeCut(format, layering, layer, spots, isMirrored);
      return file(`layer-${layer.order}-${layer.spotId}.${ending}`, mediaType, write);
    }),
  );
  const all = () => writeShapesSvg(drawLayers(layering, layering.layers, spots, false));
  return { outputs: [...cuts, file("layers.svg", FILES.svg.mediaType, all)], notes: [] };
}

function writeCut(
  format: CutFormat,
  layering: Layering,
  layer: Layer,
  spots: readonly Spot[],
  isMirrored: boolean,
): string {
  if (format === "hpgl") return writeHpgl(planCuts(layer.region, { ...layering, isMirrored }));
  const drawing = drawLayers(layering, [layer], spots, isMirrored);
  return format === "dxf" ? writeShapesDxf(drawing) : writeShapesSvg(drawing);
}

/** Layers as a drawing of shapes, in press order; nothing is drawn beside what is cut. */
function drawLayers(
  { widthPx, heightPx, mmPerPx }: Layering,
  layers: readonly Layer[],
  spots: readonly Spot[],
  isMirrored: boolean,
): ShapeDrawing {
  const laid = (path: CubicPath) => (isMirrored ? mirrorPath(path, widthPx) : path);
  const groups = layers.flatMap(({ spotId, region }) => {
    const spot = spots.find(({ id }) => id === spotId);
    return spot ? [{ spot, shapes: [region.map(laid)], under: [], seams: [] }] : [];
  });
  return { widthPx, heightPx, mmPerPx, groups };
}
