// What a step's tool gets from the light table: where a person presses, drags and lets go, by pointer or by keyboard.
import type { Point } from "@plain-palette/core/raster";
import type { TableLayer } from "./layers.ts";
import type { View } from "./tiles.ts";

/** A place in table units, with the modifiers held and how many table units a screen pixel is. */
export interface ToolEvent extends Point {
  readonly isStraight: boolean;
  /** Whether the key is held that leaves what draws the hand to itself (Alt). */
  readonly isFree: boolean;
  readonly unitsPerPx: number;
}

/** A place of the screen, px from the table's corner, as a tool gets it. */
export function toolEvent(
  px: number,
  py: number,
  { shiftKey, altKey }: { readonly shiftKey: boolean; readonly altKey: boolean },
  { zoom, x, y }: View,
): ToolEvent {
  return { x: (px - x) / zoom, y: (py - y) / zoom, isStraight: shiftKey, isFree: altKey, unitsPerPx: 1 / zoom };
}

/** While a step has a tool, dragging works with it; the space bar or the middle button still moves the table. */
export interface TableTool {
  /** Said to assistive software and shown under the table. */
  readonly hint: string;
  readonly cursor: string;
  /** Why the tool would do nothing where the pointer is. */
  readonly refusal?: string | null;
  onPress(event: ToolEvent): void;
  onDrag(event: ToolEvent): void;
  onRelease(event: ToolEvent): void;
  /** A key while the table has the focus; whether the tool took it. */
  onKey?(key: string, isLarge: boolean): boolean;
  /** The pointer moves without being pressed. */
  onHover?(event: ToolEvent): void;
}

/** A tool and what it draws on the table. */
export interface ToolInHand {
  readonly tool: TableTool;
  readonly overlays: readonly TableLayer[];
}

/** What is drawn does not need points nearer than `least`. */
export function addPoint(points: readonly number[], x: number, y: number, least: number): readonly number[] {
  const [lastX = Number.POSITIVE_INFINITY, lastY = 0] = points.slice(-2);
  return Math.abs(x - lastX) + Math.abs(y - lastY) < least ? points : [...points, x, y];
}
