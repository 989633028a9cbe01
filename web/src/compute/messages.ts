// What passes between the page and its computing worker.
import type { NearPair, ThinLimits, ThinPlace, Warning } from "@plain-palette/core/checks";
import type { HandEdge } from "@plain-palette/core/edit";
import type { ShapeFormat, Stacking } from "@plain-palette/core/formats";
import type { CubicPath } from "@plain-palette/core/geometry";
import type { LetterDress, Lettering, LetterLayer, Stand } from "@plain-palette/core/lettering";
import type { Made, ProcessReport } from "@plain-palette/core/process";
import type { Proof, ProofFacts } from "@plain-palette/core/proof";
import type { BackgroundProposal, Box, Frame, TrimProposal } from "@plain-palette/core/raster";
import type { Recipe, ShapeEntry } from "@plain-palette/core/recipe";
import type { Proposal, Rung, Spot } from "@plain-palette/core/reduce";
import type { Deviation } from "@plain-palette/core/trace";

/** Compute the recipe on an artwork up to a step; a later request makes an earlier one stale. */
export interface ComputeRequest {
  readonly type: "compute";
  readonly id: number;
  /** Names the artwork's bytes. */
  readonly hash: string;
  readonly recipe: Recipe;
  readonly upTo: "prepare" | "edit" | "make";
  /** The action being tuned, whose effect is marked. */
  readonly focusId: string | null;
  /** What the source is compared with, if anything. */
  readonly compare: "prepared" | "reduced" | null;
  /** What counts as too thin; null where nobody looks at the checks. */
  readonly checkThin: ThinLimits | null;
  /** Whether curves are measured against the boundaries of the picture. */
  readonly measure: boolean;
  /** A change of shapes that is looked at before it is taken. */
  readonly trying: ShapeEntry | null;
  /** Whether someone works on the shapes by hand and has to find their nodes. */
  readonly byHand: boolean;
  /** Whether the number of colours is at hand: one fewer may well be wanted next. */
  readonly countsColours: boolean;
}

/** Leave the latest request where it is. */
export interface StopRequest {
  readonly type: "stop";
  readonly id: number;
}

/** What the page asks besides, of what was computed last: what is wanted, and the answer. */
export interface Questions {
  /** How a scan would be trimmed, and which background would be taken away. */
  readonly trim: { readonly wanted: null; readonly answer: TrimProposal | null };
  readonly background: { readonly wanted: null; readonly answer: BackgroundProposal | null };
  /** Which areas a click on a place would take. A later question makes an earlier one stale: null. */
  readonly area: { readonly wanted: WantedArea; readonly answer: AreaView | null };
  /** What the client would see now; null while something newer is computed. */
  readonly proof: {
    readonly wanted: { readonly recipe: Recipe; readonly facts: ProofFacts };
    readonly answer: Proof | null;
  };
  /** The shapes as a file to keep; several in a ZIP. */
  readonly shapes: {
    readonly wanted: WantedShapes;
    readonly answer: { readonly name: string; readonly bytes: Uint8Array<ArrayBuffer> };
  };
}

/** One of them. Each is answered, or refused with the reason. */
export type Question = {
  readonly [K in keyof Questions]: {
    readonly type: "ask";
    readonly id: number;
    readonly what: K;
    readonly wanted: Questions[K]["wanted"];
  };
}[keyof Questions];

export interface WantedShapes {
  readonly recipe: Recipe;
  readonly format: ShapeFormat;
  readonly stacking: Stacking;
  readonly isPerColour: boolean;
}

export interface WantedArea {
  readonly kind: "recolour" | "pour";
  readonly reach: "area" | "enclosed" | "everywhere";
  /** Upright pixels. */
  readonly at: { readonly x: number; readonly y: number };
}

/** What a click would take: marks on its pixels, or why it takes nothing. */
export type AreaView =
  | { readonly bitmap: ImageBitmap; readonly x: number; readonly y: number; readonly reason: null }
  | { readonly bitmap: null; readonly reason: string };

/** The prepared picture as the page shows it. A bitmap is null where it has not changed since the last message. */
export interface PreparedView {
  /** Upright pixels to a pixel of `bitmap` and of the marks: over 1 in a first look at a large picture. */
  readonly bitmapScale: number;
  readonly frame: Frame;
  readonly bitmap: ImageBitmap | null;
  /** Whether the upright picture is the client's just as it came. */
  readonly isAsSent: boolean;
  /** The client's picture laid upright, unless it is as it came. */
  readonly upright: ImageBitmap | null;
  /** Smallest box around what is there. */
  readonly box: Box | null;
  readonly misfits: ReadonlyMap<string, string>;
  readonly focus: FocusView | null;
  readonly seeThrough: SeeThroughView | null;
}

/** Half-transparent areas that nobody has decided on; shares (0..1) of the picture, and a place in the largest. */
export interface SeeThroughView {
  readonly share: number;
  readonly faintShare: number;
  readonly at: { readonly x: number; readonly y: number };
}

/** What the action in focus does. */
export interface FocusView {
  readonly id: string;
  /** Marks on every pixel that it takes away; null where the result itself shows what it does. */
  readonly marks: ImageBitmap | null;
  readonly markedPx: number;
  /** With specks and pinholes: how many. */
  readonly count: number | null;
  /** With line art: greys of the picture before it, and the automatic cut-off (Otsu), 0..255. */
  readonly greys: { readonly counts: Uint32Array; readonly otsu: number } | null;
}

/** The reduced picture as the page shows it. */
export interface ReducedView {
  readonly spots: readonly Spot[];
  readonly foundCount: number;
  readonly proposal: Proposal;
  readonly rungs: readonly Rung[];
  /** Corrections that do nothing here, with the reason. */
  readonly misfits: ReadonlyMap<string, string>;
  /** Corrections that this is made with; others of the recipe are still waiting. */
  readonly corrections: ReadonlySet<string>;
  readonly opaquePx: number;
  readonly noise: number;
}

/** One layer of the traced picture: the closed paths of each spot in it. */
export interface DrawnLayer {
  readonly fills: readonly { readonly spotId: string; readonly paths: readonly CubicPath[] }[];
  /** Whether its shapes meet at shared boundaries; else they may lie over each other. */
  readonly isAbutting: boolean;
}

/** The traced picture as the page shows it. */
export interface TracedView {
  /** The lowest first. */
  readonly layers: readonly DrawnLayer[];
  readonly edges: readonly CubicPath[];
  readonly counts: ShapeCounts;
  /** The same before anything was done to them by hand. */
  readonly asTraced: ShapeCounts;
  /** Entries of the shapes that change nothing, with the reason, by their id. */
  readonly misfits: ReadonlyMap<string, string>;
  /** What a hand finds; null where nobody works by hand. */
  readonly hand: HandView | null;
  /** Shapes so small that they keep to a fine tolerance. */
  readonly fine: number;
  readonly deviation: Deviation | null;
  readonly tried: TriedView | null;
  readonly coverage: ReadonlyMap<string, number>;
}

export interface ShapeCounts {
  readonly shapes: number;
  readonly nodes: number;
}

/** Boundaries with the spots on their sides, and shapes. */
export interface HandView {
  readonly edges: readonly HandEdge[];
  readonly faces: readonly { readonly spotId: string; readonly paths: readonly CubicPath[] }[];
  /** Boundaries that the last edit has replaced. */
  readonly replaced: readonly CubicPath[];
}

/** An entry of lettering as it is set; pixels of the prepared picture. */
export interface LetteringView {
  readonly id: string;
  readonly set: Lettering;
  /** With its middle on the baseline, and the direction of reading there. */
  readonly letters: readonly (Stand & {
    readonly at: number;
    readonly text: string;
    readonly paths: readonly CubicPath[];
  })[];
  /** Baselines from left to right, the first row's first. */
  readonly baselines: readonly (readonly Stand[])[];
  readonly dress: LetterDress;
  /** What is laid down of it, the lowest first. */
  readonly layers: readonly LetterLayer[];
  /** Letters that the typeface does not have. */
  readonly missing: readonly string[];
}

/** What a change of shapes would do: the boundaries that it changes, as they are and as they would be. */
export interface TriedView {
  readonly before: readonly CubicPath[];
  readonly after: readonly CubicPath[];
  /** Outlines of the shape that was picked; empty where none was. */
  readonly picked: readonly CubicPath[];
  readonly nodes: number;
}

/** What will not come out as meant. */
export interface ChecksView {
  readonly thin: readonly ThinPlace[];
  readonly near: readonly NearPair[];
  /** Share (0..1) of the art that shades away from its flat spots. */
  readonly shading: number;
}

/** What a process made, and what is to be known of it: of what it made before, until that is measured; null: nothing yet. */
export interface MadeView extends Made {
  readonly report: ProcessReport | null;
}

/** Where the result differs from the source. */
export interface DifferenceView {
  readonly bitmap: ImageBitmap;
  /** Pixels by their difference: one count for every CIEDE2000 unit, the last for all above. */
  readonly counts: readonly number[];
  /** Share of the picture that differs visibly (CIEDE2000 over 2), 0..1. */
  readonly share: number;
  readonly worst: number;
}

export type ComputeMessage =
  | { readonly type: "loaded"; readonly bitmap: ImageBitmap }
  /** What is done next, in words; how much of all there may be to do is done, 0..1. */
  | { readonly type: "step"; readonly id: number; readonly doing: string; readonly done: number }
  | { readonly type: "prepared"; readonly id: number; readonly view: PreparedView }
  | { readonly type: "reduced"; readonly id: number; readonly view: ReducedView }
  | { readonly type: "traced"; readonly id: number; readonly view: TracedView }
  /** Lettering as it is set, before it lies in the map: what is typed shows at once. */
  | { readonly type: "lettered"; readonly id: number; readonly views: readonly LetteringView[] }
  | { readonly type: "checked"; readonly id: number; readonly view: ChecksView }
  | { readonly type: "compared"; readonly id: number; readonly view: DifferenceView }
  | { readonly type: "made"; readonly id: number; readonly made: readonly Made[] }
  /** What is to be known of what was made last, in the same order; later than it, since measuring takes its time. */
  | {
      readonly type: "reported";
      readonly id: number;
      readonly reports: readonly ProcessReport[];
      readonly warnings: readonly Warning[];
    }
  | { readonly type: "done"; readonly id: number }
  | { readonly type: "failed"; readonly id: number; readonly message: string }
  | { readonly type: "answered"; readonly id: number; readonly answer: Questions[keyof Questions]["answer"] }
  | { readonly type: "refused"; readonly id: number; readonly message: string };
