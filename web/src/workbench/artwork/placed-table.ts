// The design on the garment and the printable area of its placement, at scale.

import { silhouetteFor } from "@plain-palette/core/garment";
import type { Recipe } from "@plain-palette/core/recipe";
import type { PreparedPicture } from "../../compute/use-compute.ts";
import type { OwnTable } from "../screen.ts";

/** Units are upright pixels. */
export function placedTable(
  { bitmap, bitmapScale, frame }: PreparedPicture,
  { garment, placement }: Recipe["artwork"],
  mmPerPx: number,
): OwnTable {
  const area = {
    width: placement ? placement.areaWidthMm / mmPerPx : frame.width,
    height: placement ? placement.areaHeightMm / mmPerPx : frame.height,
  };
  const { outline: body, seams, box, printAt } = silhouetteFor(placement);
  const inPx = 1 / mmPerPx;
  /** Middle of the print's upper edge on the table. */
  const x = (printAt.x - box.x) * inPx;
  const y = (printAt.y - box.y) * inPx;
  const onGarment = (path: string) => {
    const drawn = new Path2D();
    drawn.addPath(new Path2D(path), new DOMMatrix().scaleSelf(inPx).translateSelf(-box.x, -box.y));
    return drawn;
  };
  const outline = new Path2D();
  outline.rect(x - area.width / 2, y, area.width, area.height);
  const middle = new Path2D();
  middle.moveTo(x, y);
  middle.lineTo(x, y + area.height);
  const onTable = { scaleX: bitmapScale, scaleY: bitmapScale, dx: x - frame.width / 2, dy: y };
  return {
    name: "placed",
    mmPerUnit: mmPerPx,
    caption: null,
    placeOf: null,
    width: box.width * inPx,
    height: box.height * inPx,
    layers: [
      { kind: "fills", fills: [{ colour: garment, path: onGarment(body) }] },
      { kind: "strokes", path: onGarment(body), colour: "#1e1d1a", screenPx: 1 },
      { kind: "strokes", path: onGarment(seams), colour: "#8a8880", screenPx: 1 },
      { kind: "strokes", path: middle, colour: "#1e1d1a", screenPx: 1, isHaloed: true, dashPx: 3 },
      { kind: "bitmap", bitmap, opacity: 1, transform: onTable },
      { kind: "strokes", path: outline, colour: "#1e1d1a", screenPx: 1.5, isHaloed: true, dashPx: 8 },
    ],
  };
}
