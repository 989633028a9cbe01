// What an SVG costs to draw, reckoned without drawing: parts that are used several times count each time, and each group
// that is half-transparent, masked or filtered is a picture of its own while it is drawn.
import { IntakeError } from "./intake-error.ts";

export interface SvgCost {
  /** Elements and points of their paths, each as often as it is drawn. */
  readonly strokes: number;
  /** Pictures of its own, each as often as it is made. */
  readonly layers: number;
  /** Most of them at once. */
  readonly layersDeep: number;
}

/** What a renderer draws within seconds: a busy poster has some 100,000 points. */
const MOST_STROKES = 600_000;
const MOST_LAYERS = 3000;
/** Longest chain of parts that use parts. */
const MOST_LINKS = 400;

interface Part {
  own: number;
  isLayer: boolean;
  hasClass: boolean;
  readonly children: Part[];
  /** Ids of what is drawn with it. */
  readonly uses: string[];
  cost?: SvgCost | "open";
}

export interface CostSheet {
  open(name: string, attributes: Readonly<Record<string, string>>): void;
  close(): void;
  /** A style sheet: what of it makes pictures of its own may apply to any class. */
  style(css: string): void;
  /** Throws an IntakeError for what would never be done. */
  reckon(): SvgCost;
}

const makePart = (): Part => ({ own: 1, isLayer: false, hasClass: false, children: [], uses: [] });

export function makeCostSheet(): CostSheet {
  const root = makePart();
  const open: Part[] = [root];
  const byId = new Map<string, Part>();
  let styleMakesLayers = false;

  const costOf = (part: Part, links: number): SvgCost => {
    if (part.cost === "open") return { strokes: 0, layers: 0, layersDeep: 0 };
    if (part.cost) return part.cost;
    if (links > MOST_LINKS) tooMuch(`uses parts within parts more than ${MOST_LINKS} deep`);
    part.cost = "open";
    const isLayer = part.isLayer || (part.hasClass && styleMakesLayers);
    let strokes = part.own;
    let layers = isLayer ? 1 : 0;
    let deep = 0;
    const used = part.uses.map((id) => byId.get(id)).filter((one) => one !== undefined);
    for (const one of [...part.children, ...used]) {
      const cost = costOf(one, links + 1);
      strokes += cost.strokes;
      layers += cost.layers;
      deep = Math.max(deep, cost.layersDeep);
    }
    if (strokes > MOST_STROKES) tooMuch(`draws more than ${MOST_STROKES / 1000},000 points, counting what it repeats`);
    if (layers > MOST_LAYERS) tooMuch(`has more than ${MOST_LAYERS} masks and half-transparent groups`);
    part.cost = { strokes, layers, layersDeep: deep + (isLayer ? 1 : 0) };
    return part.cost;
  };

  return {
    open(_name, attributes) {
      const part = makePart();
      open.at(-1)?.children.push(part);
      open.push(part);
      for (const [name, value] of Object.entries(attributes)) note(part, name, value);
      if (attributes.id !== undefined && !byId.has(attributes.id)) byId.set(attributes.id, part);
    },
    close() {
      open.pop();
    },
    style(css) {
      styleMakesLayers ||= /opacity|mask|filter|blend|isolation|clip-path/i.test(css);
    },
    reckon: () => costOf(root, 0),
  };
}

function tooMuch(what: string): never {
  throw new IntakeError(`The SVG ${what}: too much to draw. Export it flattened, or as a PNG.`, 413);
}

const LAYER_ATTRIBUTES = new Set(["opacity", "mask", "filter", "clip-path", "mix-blend-mode", "isolation"]);

function note(part: Part, name: string, value: string): void {
  if (name === "class") part.hasClass = true;
  if (name === "d" || name === "points") part.own += countNumbers(value) / 2;
  if (LAYER_ATTRIBUTES.has(name) && value !== "1" && value !== "none") part.isLayer = true;
  if (name === "style" && /opacity|mask|filter|blend|isolation|clip-path/i.test(value)) part.isLayer = true;
  if (name === "href" || name === "xlink:href") {
    if (value.startsWith("#")) part.uses.push(value.slice(1));
    return;
  }
  for (let at = value.indexOf("url("); at >= 0; at = value.indexOf("url(", at + 4)) {
    const id = /^url\(\s{0,9}["']?#([^"')]{1,200})/.exec(value.slice(at, at + 220))?.[1];
    if (id !== undefined) part.uses.push(id);
  }
}

/** Runs of digits, which is at least the numbers there are. */
function countNumbers(text: string): number {
  let count = 0;
  let isIn = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const isDigit = (code >= 48 && code <= 57) || code === 46;
    if (isDigit && !isIn) count++;
    isIn = isDigit;
  }
  return count;
}
