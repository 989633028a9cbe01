// Edits by hand: what a person does to the traced shapes, each with its place in the prepared picture's pixels.
import type { CubicPath } from "../geometry/index.ts";
import type { Point } from "../raster/index.ts";
import type { Simplification } from "../trace/index.ts";

/** A stretch of a boundary as it was and as it is to be; the same way round. */
export interface LineChange {
  readonly was: CubicPath;
  readonly now: CubicPath;
  /** Spots on its left and right, looking along it (y down); null for the garment. */
  readonly left: string | null;
  readonly right: string | null;
}

/** A shape by a place inside it and its spot. */
export interface ShapePick {
  readonly at: Point;
  readonly spotId: string;
}

/** Lengths are pixels of the prepared picture. */
export type Edit =
  | ({ readonly kind: "simplify" } & Simplification)
  /** Stretches of boundaries drawn anew: both neighbours follow. */
  | { readonly kind: "line"; readonly changes: readonly LineChange[] }
  /** Closed outlines laid down in a spot, or as a hole to the garment; only on what is of one spot, if that is named. */
  | {
      readonly kind: "lay";
      readonly paths: readonly CubicPath[];
      readonly spotId: string | null;
      readonly isHeld: boolean;
      readonly onlyOn: string | null;
    }
  /** Outlines in spots one over the other, the last on top, held; null is a hole to the garment. */
  | {
      readonly kind: "stack";
      readonly layers: readonly { readonly paths: readonly CubicPath[]; readonly spotId: string | null }[];
      /** Shapes, with what they enclose, taken away before. */
      readonly over?: readonly ShapePick[];
    }
  /** One that cannot be made, and why. */
  | { readonly kind: "none"; readonly reason: string }
  /** A line along which shapes of a spot are parted, without a gap. */
  | { readonly kind: "cut"; readonly path: CubicPath; readonly spotId: string }
  /** Shapes with what they enclose: what becomes of them where they are, and copies of them elsewhere. */
  | {
      readonly kind: "pieces";
      readonly picks: readonly ShapePick[];
      /** Kept, taken away (what surrounds them takes their place), or given another spot. */
      readonly stays: "kept" | "away" | { readonly spotId: string | null };
      /** Where they are laid, from their middle; none if they are not. */
      readonly placed: readonly PiecePlace[];
      /** Shapes taken away before. */
      readonly over: readonly ShapePick[];
    }
  /** A round shape, or hole, becomes a circle of this diameter about its middle and is held. */
  | { readonly kind: "round"; readonly at: Point; readonly spotId: string | null; readonly diameterPx: number }
  /** Boundaries under a brush become smooth, or straight. */
  | {
      readonly kind: "brush";
      readonly points: ArrayLike<number>;
      readonly radiusPx: number;
      readonly strengthPx: number;
      readonly does: "smooth" | "straighten";
      readonly keepsCorners: boolean;
    };

/** Where pieces go: by a matrix (x' = a x + b y, y' = c x + d y) about the middle of their box, then moved. */
export interface PiecePlace {
  readonly dx: number;
  readonly dy: number;
  readonly matrix: readonly [number, number, number, number];
}

/** Why an edit changes nothing. */
export const LOST = "does not find its place any more";
export const TANGLED = "cannot be laid here: move it a little";
