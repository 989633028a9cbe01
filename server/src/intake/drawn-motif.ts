// Art that was drawn elsewhere, as a motif: an SVG, or a page of a PDF as poppler writes it in SVG. A general renderer's parser
// (resvg) brings it to plain paths; whatever is no flat shape is refused by name rather than left out.
import type { StrokeLook } from "@plain-palette/core/edit";
import { widenStroke } from "@plain-palette/core/edit";
import { type CubicPath, mapPath } from "@plain-palette/core/geometry";
import { type FilledArea, flattenDrawn, type Motif, type Painted } from "@plain-palette/core/motif";
import { readXml, type XmlElement } from "@plain-palette/core/xml";
import { Resvg } from "@resvg/resvg-js";
import { ZodError } from "zod";
import { checkSvg } from "./check-svg.ts";
import { dashLine } from "./dash-line.ts";
import { IntakeError } from "./intake-error.ts";
import { readPathData } from "./path-data.ts";
import { drawPdfPageAsSvg } from "./pdf.ts";

/** Largest file. */
const MAX_BYTES = 16 * 1024 * 1024;
/** resvg writes as many groups within each other as there were, and a clip or two. */
const MOST_DEEP = 1000;
/** CSS pixels to the inch (CSS Values 3, 5.2). */
const MM_PER_CSS_PX = 25.4 / 96;
/** So much of what is behind shows through nothing that one can see. */
const SOLID = 0.995;
const CURE = "make a job of it and keep its shapes from there, or have it drawn in flat colours";

type Matrix = readonly [number, number, number, number, number, number];
const STILL: Matrix = [1, 0, 0, 1, 0, 0];
type Attributes = Readonly<Record<string, string>>;

/** The motif in an SVG or on the first page of a PDF. Throws an IntakeError that says what of it is no flat shape. */
export async function readDrawnMotif(bytes: Uint8Array, kind: "svg" | "pdf"): Promise<Motif> {
  if (bytes.length > MAX_BYTES) throw new IntakeError(`The drawing has more than 16 MB: ${CURE}.`, 413);
  const svg = kind === "svg" ? bytes : await drawPdfPageAsSvg(bytes, 1);
  checkSvg(svg);
  const text = new TextDecoder().decode(svg);
  if (kind === "svg" && /<(\w+:)?text[\s>]/.test(text))
    throw new IntakeError("The drawing has words in a typeface. Turn them into outlines and save it again.");
  const { painted, width, height, widthMm } = readPlainSvg(makePlain(text));
  if (painted.length === 0) throw new IntakeError("The drawing has no shapes in it.");
  try {
    const motif = flattenDrawn({ width, height, widthMm, painted });
    if (motif) return motif;
  } catch (error) {
    if (!(error instanceof ZodError)) throw error;
    throw new IntakeError(`The drawing is no motif: it ${error.issues[0]?.message ?? "does not fit"}. Else ${CURE}.`);
  }
  throw new IntakeError(`The drawing's shapes lie so that they cannot be told apart: ${CURE}.`);
}

function makePlain(text: string): string {
  try {
    return new Resvg(text, { font: { loadSystemFonts: false } }).toString();
  } catch {
    throw new IntakeError("The drawing is damaged or ends too early. Save it again, as plain SVG or PDF.");
  }
}

/** A group's settings, with those of the groups around it. */
interface Group {
  readonly matrix: Matrix;
  readonly clips: readonly FilledArea[];
}

/** Reads what resvg writes: groups with a matrix and a clip, and paths in absolute numbers. */
function readPlainSvg(text: string) {
  const size = { width: 0, height: 0, widthMm: 0 };
  const painted: Painted[] = [];
  const groups: Group[] = [{ matrix: STILL, clips: [] }];
  const clips = new Map<string, FilledArea>();
  let clip: { readonly id: string; readonly matrix: Matrix; paths: CubicPath[]; rule: FilledArea["rule"] } | null =
    null;
  const open = ({ name, attributes }: XmlElement) => {
    const around = groups.at(-1) ?? { matrix: STILL, clips: [] };
    const matrix = times(around.matrix, matrixOf(attributes.transform));
    if (name === "svg") Object.assign(size, sizeOf(attributes));
    else if (name === "clipPath") clip = { id: attributes.id ?? "", matrix, paths: [], rule: "nonzero" };
    else if (name === "path" && clip) {
      if (attributes["clip-rule"] === "evenodd") clip.rule = "evenodd";
      const own = times(clip.matrix, matrixOf(attributes.transform));
      clip.paths.push(...readPathData(attributes.d ?? "").map((path) => moved(path, own)));
    } else if (name === "path") painted.push(...paint(attributes, matrix, around.clips));
    else if (name === "g") {
      refuseEffects(attributes);
      const id = /url\(#(.*)\)/.exec(attributes["clip-path"] ?? "")?.[1];
      const area = id === undefined ? null : clips.get(id);
      groups.push({ matrix, clips: area ? [...around.clips, clipIn(area, matrix)] : around.clips });
    } else if (name === "image") throw new IntakeError(`The drawing has a picture of pixels in it: ${CURE}.`);
  };
  const close = ({ name }: XmlElement) => {
    if (name === "g") groups.pop();
    if (name !== "clipPath" || !clip) return;
    clips.set(clip.id, { paths: clip.paths.map(closed), rule: clip.rule });
    clip = null;
  };
  // From here on it is resvg that wrote it.
  const wrong = () => {
    throw new IntakeError("The drawing cannot be read. Save it again, as plain SVG or PDF.");
  };
  readXml(text, { open, close, wrong, tooDeep: wrong }, { hasNamespaces: false, mostDeep: MOST_DEEP });
  return { ...size, painted };
}

/** A clip is cut in the units of the group that uses it. */
function clipIn({ paths, rule }: FilledArea, matrix: Matrix): FilledArea {
  return { paths: paths.map((path) => moved(path, matrix)), rule };
}

function sizeOf({ width, height, viewBox }: Attributes) {
  const [, , boxWidth = 0, boxHeight = 0] = (viewBox ?? `0 0 ${width} ${height}`).split(" ").map(Number);
  // Drawn as large as fits, whichever way it is longer (SVG 2, 8.7).
  const perUnit = Math.min(Number(width) / boxWidth, Number(height) / boxHeight);
  return { width: boxWidth, height: boxHeight, widthMm: boxWidth * perUnit * MM_PER_CSS_PX };
}

function refuseEffects(attributes: Attributes): void {
  const refuse = (what: string) => {
    throw new IntakeError(`The drawing has ${what} in it: ${CURE}.`);
  };
  if (Number(attributes.opacity ?? 1) < SOLID) refuse("half-transparent parts");
  if (attributes.mask) refuse("a mask");
  if (attributes.filter) refuse("a filter effect");
  if (/mix-blend-mode:(?!normal)/.test(attributes.style ?? "")) refuse("blended parts");
}

/** Fill and stroke of a path as what is painted, fill first. */
function paint(attributes: Attributes, matrix: Matrix, clips: readonly FilledArea[]): Painted[] {
  const paths = readPathData(attributes.d ?? "");
  const out: Painted[] = [];
  const fill = colourOf(attributes.fill, attributes["fill-opacity"]);
  if (fill) {
    const rule = attributes["fill-rule"] === "evenodd" ? ("evenodd" as const) : ("nonzero" as const);
    out.push({ area: { paths: paths.map((path) => moved(closed(path), matrix)), rule }, clips, hex: fill });
  }
  const stroke = colourOf(attributes.stroke, attributes["stroke-opacity"]);
  if (stroke) {
    const width = Number(attributes["stroke-width"] ?? 1);
    const dashes = attributes["stroke-dasharray"]?.split(/[ ,]+/).map(Number) ?? [];
    const lines = paths.flatMap((path) => dashLine(path, dashes, Number(attributes["stroke-dashoffset"] ?? 0)));
    const wide = lines.flatMap((line) => widenStroke(line, width, lookOf(attributes)));
    out.push({ area: { paths: wide.map((path) => moved(path, matrix)), rule: "nonzero" }, clips, hex: stroke });
  }
  return out;
}

function lookOf(attributes: Attributes): StrokeLook {
  const join = attributes["stroke-linejoin"] ?? "miter";
  const cap = attributes["stroke-linecap"] ?? "butt";
  const corners =
    join === "round"
      ? "round"
      : join === "bevel"
        ? "cut"
        : { miterLimit: Number(attributes["stroke-miterlimit"] ?? 4) };
  return { corners, ends: cap === "round" ? "round" : cap === "square" ? "square" : "flat" };
}

function colourOf(paint: string | undefined, opacity: string | undefined): string | null {
  if (paint === undefined || paint === "none") return null;
  if (paint.startsWith("url("))
    throw new IntakeError(`The drawing has a colour that shades into another, or a pattern: ${CURE}.`);
  const strength = Number(opacity ?? 1);
  if (strength <= 1 - SOLID) return null;
  if (strength < SOLID) throw new IntakeError(`The drawing has half-transparent parts in it: ${CURE}.`);
  return paint.toLowerCase();
}

function closed(path: CubicPath): CubicPath {
  const n = path.length;
  const [x, y, ex, ey] = [path[0] ?? 0, path[1] ?? 0, path[n - 2] ?? 0, path[n - 1] ?? 0];
  return x === ex && y === ey ? path : Float64Array.from([...path, ex, ey, x, y, x, y]);
}

function matrixOf(transform: string | undefined): Matrix {
  const numbers = /matrix\(([^)]*)\)/
    .exec(transform ?? "")?.[1]
    ?.trim()
    .split(/[ ,]+/)
    .map(Number);
  if (!numbers) return STILL;
  const [a = 1, b = 0, c = 0, d = 1, e = 0, f = 0] = numbers;
  return [a, b, c, d, e, f];
}

function times([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix {
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

function moved(path: CubicPath, [a, b, c, d, e, f]: Matrix): CubicPath {
  return mapPath(path, (x, y) => [a * x + c * y + e, b * x + d * y + f]);
}
