// Lettering as outlines, so that the demo art looks the same on a machine without fonts.
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import fontkit from "@pdf-lib/fontkit";

const require = createRequire(import.meta.url);

/** The faces that the demo art is lettered in. */
export type Face = "DejaVuSans-Bold" | "DejaVuSerif-Bold" | "DejaVuSansCondensed-Bold";

const faces = new Map<Face, ReturnType<typeof fontkit.create>>();

function faceOf(name: Face) {
  const known = faces.get(name);
  if (known) return known;
  const face = fontkit.create(readFileSync(require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`)));
  faces.set(name, face);
  return face;
}

interface Glyphs {
  readonly pieces: readonly { readonly d: string; readonly x: number; readonly advance: number }[];
  readonly width: number;
  readonly scale: number;
}

function layOut(text: string, name: Face, size: number, spacing: number): Glyphs {
  const face = faceOf(name);
  const scale = size / face.unitsPerEm;
  const run = face.layout(text);
  let x = 0;
  const pieces = run.glyphs.map((glyph, i) => {
    const piece = { d: glyph.path.toSVG(), x, advance: (run.positions[i]?.xAdvance ?? 0) * scale };
    x += piece.advance + spacing;
    return piece;
  });
  return { pieces, width: x - spacing, scale };
}

/** SVG paths of a line of text centred on `x`, baseline at `y`. */
export function letterLine(text: string, name: Face, size: number, x: number, y: number, spacing = 0): string {
  const { pieces, width, scale } = layOut(text, name, size, spacing);
  return pieces
    .map((p) => `<path transform="translate(${x - width / 2 + p.x} ${y}) scale(${scale} ${-scale})" d="${p.d}"/>`)
    .join("");
}

/** SVG paths of text along a circle, centred at the top (or, upside down, at the bottom). */
export function letterArc(
  text: string,
  name: Face,
  size: number,
  [cx, cy, radius]: readonly [number, number, number],
  side: "top" | "bottom",
  spacing = 0,
): string {
  const { pieces, width, scale } = layOut(text, name, size, spacing);
  const sign = side === "top" ? 1 : -1;
  return pieces
    .map((p) => {
      const turn = (p.x + p.advance / 2 - width / 2) / radius;
      const angle = (turn * sign * 180) / Math.PI;
      const px = cx + Math.sin(turn) * radius;
      const py = cy - Math.cos(turn) * radius * sign;
      return `<path transform="translate(${px} ${py}) rotate(${angle}) translate(${-p.advance / 2} 0) scale(${scale} ${-scale})" d="${p.d}"/>`;
    })
    .join("");
}
