// A pen on a page of a sheet for people: words, lines and pictures in millimetres.
import {
  clip,
  endPath,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  rgb,
} from "pdf-lib";
import type { Rgb } from "../colour/index.ts";
import { missingCharacters, spellOut } from "../labels/index.ts";
import { PT_PER_MM } from "./page.ts";

const INK: Rgb = [30, 29, 26];
const RULE: Rgb = [200, 198, 190];

/** A part of a page, mm. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Draws on a page in millimetres from its upper left corner. */
export interface Pen {
  write(text: string, x: number, y: number, sizeMm: number, colour?: Rgb): void;
  rule(x: number, y: number, width: number): void;
  line(x0: number, y0: number, x1: number, y1: number, colour: Rgb): void;
  fill(box: Box, colour: Rgb): void;
  /** SVG path data from a place on, `scale` millimetres to its unit. */
  path(data: string, x: number, y: number, scale: number, look: { readonly fill?: Rgb; readonly line?: Rgb }): void;
  /** Nothing that is drawn meanwhile reaches out of a box. */
  within(box: Box, draw: () => void): void;
}

/** `sheet` is the page's size and its margin, mm. */
export function makePen(
  page: PDFPage,
  font: PDFFont,
  labelFont: Uint8Array,
  sheet: { readonly width: number; readonly height: number; readonly margin: number },
): Pen {
  const pt = (mm: number) => mm * PT_PER_MM;
  const up = (y: number) => pt(sheet.height - y);
  const tone = ([r, g, b]: Rgb) => rgb(r / 255, g / 255, b / 255);
  const line = (x0: number, y0: number, x1: number, y1: number, colour: Rgb) =>
    page.drawLine({
      start: { x: pt(x0), y: up(y0) },
      end: { x: pt(x1), y: up(y1) },
      thickness: 0.5,
      color: tone(colour),
    });
  return {
    write(text, x, y, sizeMm, colour = INK) {
      const spelled = spellOut(text, missingCharacters(text, labelFont));
      // A long name makes the line smaller, never shorter.
      const room = sheet.width - sheet.margin - x;
      const natural = font.widthOfTextAtSize(spelled, pt(sizeMm)) / PT_PER_MM;
      const size = pt(Math.min(sizeMm, (sizeMm * room) / natural));
      page.drawText(spelled, { x: pt(x), y: up(y), size, font, color: tone(colour) });
    },
    rule: (x, y, width) => line(x, y, x + width, y, RULE),
    line,
    fill: ({ x, y, width, height }, colour) =>
      page.drawRectangle({ x: pt(x), y: up(y + height), width: pt(width), height: pt(height), color: tone(colour) }),
    path(data, x, y, scale, { fill, line: stroke }) {
      page.drawSvgPath(data, {
        ...{ x: pt(x), y: up(y), scale: pt(scale) },
        ...(fill && { color: tone(fill) }),
        ...(stroke && { borderColor: tone(stroke), borderWidth: 0.4 / pt(scale) }),
      });
    },
    within({ x, y, width, height }, draw) {
      page.pushOperators(
        ...[pushGraphicsState(), rectangle(pt(x), up(y + height), pt(width), pt(height)), clip(), endPath()],
      );
      draw();
      page.pushOperators(popGraphicsState());
    },
  };
}
