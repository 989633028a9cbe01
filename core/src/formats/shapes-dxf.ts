// shapes.dxf: Drawing Interchange Format of release 12 (AC1009; group codes from memory of its published reference), the
// one that every cutter reads: circles, and closed polylines of lines and arcs, one layer for each colour, in millimetres.
import type { Rgb } from "../colour/index.ts";
import { asCircle, type CubicPath, flattenToArcs, isClosed, trimNumber } from "../geometry/index.ts";
import type { ShapeDrawing } from "./shape-groups.ts";

/** How far arcs may lie off the curves they stand for, mm: a tenth of what the best cutters repeat. */
const TOLERANCE_MM = 0.004;
/** The format's numbered colours that every program shows alike: red, yellow, green, cyan, blue, magenta, and black or white. */
const NUMBERED: readonly Rgb[] = [
  [255, 0, 0],
  [255, 255, 0],
  [0, 255, 0],
  [0, 255, 255],
  [0, 0, 255],
  [255, 0, 255],
  [0, 0, 0],
];

/** Text of shapes.dxf, y up, the picture's lower left corner at 0, 0. */
export function writeShapesDxf({ widthPx, heightPx, mmPerPx, groups, lines = [], words = [] }: ShapeDrawing): string {
  const out: string[] = [];
  const put = (code: number, value: string | number) => {
    out.push(String(code), typeof value === "number" ? trimNumber(value, 6) : value);
  };
  const x = (px: number) => px * mmPerPx;
  const y = (px: number) => (heightPx - px) * mmPerPx;
  const colours = [...groups.map(({ spot }) => spot.rgb), ...[...lines, ...words].map(({ rgb }) => rgb)];
  const layers = nameLayers([...groups.map(({ spot }) => spot.name), ...[...lines, ...words].map(({ use }) => use)]);
  put(0, "SECTION");
  put(2, "HEADER");
  put(9, "$ACADVER");
  put(1, "AC1009");
  put(9, "$EXTMIN");
  put(10, 0);
  put(20, 0);
  put(9, "$EXTMAX");
  put(10, x(widthPx));
  put(20, y(0));
  put(0, "ENDSEC");
  put(0, "SECTION");
  put(2, "TABLES");
  put(0, "TABLE");
  put(2, "LAYER");
  put(70, layers.length);
  colours.forEach((rgb, i) => {
    put(0, "LAYER");
    put(2, layers[i]);
    put(70, 0);
    put(62, nearestNumbered(rgb));
    put(6, "CONTINUOUS");
  });
  put(0, "ENDTAB");
  put(0, "ENDSEC");
  put(0, "SECTION");
  put(2, "ENTITIES");
  const addPath = (path: CubicPath, layer: string) => {
    const circle = asCircle(path);
    if (circle) {
      put(0, "CIRCLE");
      put(8, layer);
      put(10, x(circle.x));
      put(20, y(circle.y));
      put(40, circle.radius * mmPerPx);
      return;
    }
    put(0, "POLYLINE");
    put(8, layer);
    put(66, 1);
    put(70, isClosed(path) ? 1 : 0);
    const arcs = flattenToArcs(path, TOLERANCE_MM / mmPerPx);
    for (let i = 0; i + 2 < arcs.length; i += 3) {
      put(0, "VERTEX");
      put(8, layer);
      put(10, x(arcs[i]));
      put(20, y(arcs[i + 1]));
      // With y up, what turned clockwise on screen has the negative sense.
      if (arcs[i + 2] !== 0) put(42, -arcs[i + 2]);
    }
    put(0, "SEQEND");
    put(8, layer);
  };
  groups.forEach(({ shapes, under }, i) => {
    for (const path of under) addPath(path, layers[i]);
    for (const shape of shapes) for (const path of shape) addPath(path, layers[i]);
  });
  const besides = layers.slice(groups.length);
  lines.forEach((group, i) => {
    for (const path of group.lines) addPath(path, besides[i]);
  });
  words.forEach((group, i) => {
    for (const { text, x: left, y: base, turnDeg } of group.words) {
      put(0, "TEXT");
      put(8, besides[lines.length + i]);
      put(10, x(left));
      put(20, y(base));
      put(40, group.sizePx * mmPerPx);
      put(1, text);
      put(50, -turnDeg);
    }
  });
  put(0, "ENDSEC");
  put(0, "EOF");
  return `${out.join("\r\n")}\r\n`;
}

/** Layer names may hold letters, digits, "$", "-" and "_", at most 31; no two are the same. */
function nameLayers(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain = name
      .normalize("NFKD")
      .replace(/[^A-Za-z0-9]+/g, "_")
      .replace(/^_+|_+$/g, "")
      .toUpperCase()
      .slice(0, 26);
    const base = plain || "COLOUR";
    let layer = base;
    for (let n = 2; taken.has(layer); n++) layer = `${base}_${n}`;
    taken.add(layer);
    return layer;
  });
}

function nearestNumbered(rgb: Rgb): number {
  const distances = NUMBERED.map((colour) => colour.reduce((sum, v, i) => sum + (v - rgb[i]) ** 2, 0));
  return distances.indexOf(Math.min(...distances)) + 1;
}
