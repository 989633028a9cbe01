// What cutters read: drawings, or the plotter language.
import { type ShapeDrawing, writeShapesDxf, writeShapesSvg } from "../formats/index.ts";

export const CUT_FORMATS = ["svg", "dxf", "hpgl"] as const;
export type CutFormat = (typeof CUT_FORMATS)[number];

/** What each format is as a file. */
export const CUT_FILES: Readonly<Record<CutFormat, { readonly ending: string; readonly mediaType: string }>> = {
  svg: { ending: "svg", mediaType: "image/svg+xml" },
  dxf: { ending: "dxf", mediaType: "image/vnd.dxf" },
  hpgl: { ending: "plt", mediaType: "application/vnd.hp-hpgl" },
};

export function writeCutDrawing(format: "svg" | "dxf", drawing: ShapeDrawing): string {
  return format === "dxf" ? writeShapesDxf(drawing) : writeShapesSvg(drawing);
}
