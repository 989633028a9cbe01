// What is said of a motif beside its picture.
import { pathArea } from "../geometry/index.ts";

/** Of a motif the shapes alone: of each spot, as closed paths, mm. */
type Shapes = { readonly spots: readonly { readonly shapes: readonly (readonly (readonly number[])[])[] }[] };

export function countSegments({ spots }: Shapes): number {
  let count = 0;
  for (const { shapes } of spots) for (const paths of shapes) for (const path of paths) count += (path.length - 2) / 6;
  return count;
}

export function countMotifShapes({ spots }: Shapes): number {
  return spots.reduce((sum, { shapes }) => sum + shapes.length, 0);
}

/** Area of each spot's shapes, mm2. */
export function motifAreas({ spots }: Shapes): number[] {
  return spots.map(({ shapes }) =>
    shapes.reduce(
      (sum, paths) => sum + Math.abs(paths.reduce((own, path) => own + pathArea(Float64Array.from(path)), 0)),
      0,
    ),
  );
}
