// What a step of the workbench is: an entry of one table, whose folder has all that belongs to it.
import type { Job, JobStep } from "@plain-palette/contract";
import type { Process } from "@plain-palette/core/process";
import type { Point } from "@plain-palette/core/raster";
import type { Recipe } from "@plain-palette/core/recipe";
import type { ReactNode, RefObject } from "react";
import type { Ask, Computed, ComputeWishes } from "../compute/use-compute.ts";
import type { TableLayer } from "../light-table/layers.ts";
import type { Look } from "../light-table/look-bar.tsx";
import type { MovingPicture } from "../light-table/moving-picture.tsx";
import type { ToolInHand } from "../light-table/tool.ts";
import type { TableControls } from "../light-table/use-table-view.ts";
import type { ArtSize, DrawnTrace } from "./drawn-trace.ts";

/** What every step finds: the job, what is computed of it, and how it is looked at. */
export interface Bench {
  readonly job: Job;
  readonly recipe: Recipe;
  readonly computed: Computed;
  readonly ask: Ask;
  /** The prepared picture, px, and millimetres on the garment to one of them. */
  readonly size: ArtSize;
  readonly mmPerPx: number;
  readonly trace: DrawnTrace | null;
  /** The way of looking that was chosen; the source while its key is held. */
  readonly look: Look;
  readonly isSourceHeld: boolean;
  /** Where the pointer is, upright pixels. */
  readonly pointer: Point | null;
  readonly table: RefObject<TableControls | null>;
  /** Shows a place of the art on the table, upright pixels. */
  showPlace(place: Point): void;
}

/** Something that is not the art itself and has a table of its own. */
export interface OwnTable {
  /** Each has a view of its own. */
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly mmPerUnit: number;
  readonly layers: readonly TableLayer[];
  /** Said instead of the ways to look, where there is only one, and what is to be known of it. */
  readonly caption: { readonly text: string; readonly note: string } | null;
  /** Where a place of the art, upright pixels, lies on it; null where nothing is shown by place. */
  readonly placeOf: ((place: Point) => Point) | null;
}

/** What a step shows and wants at the moment. */
export interface StepView {
  readonly wishes: ComputeWishes;
  /** What is to be computed instead of the job's recipe while something is only tried. */
  readonly recipe?: Recipe;
  /** The result as this step sees it, over the garment; null: the source stands for it until it is there. */
  readonly result: readonly TableLayer[] | null;
  /** Other layers for ways of looking that only this step has; null: the source stands for them. */
  readonly looked?: Partial<Readonly<Record<Look, readonly TableLayer[] | null>>>;
  /** Over art and result, in whatever way they are looked at but as source. */
  readonly marks?: readonly TableLayer[];
  readonly tool?: ToolInHand | null;
  /** Over everything, drawn by itself: what moves. */
  readonly moving?: MovingPicture | null;
  readonly table?: OwnTable | null;
  /** Whether the source can be faded in over the result. */
  readonly canFade?: boolean;
  /** Lies on the table's corner. */
  readonly legend?: ReactNode;
  /** Settings, at the right. */
  readonly panel: ReactNode;
}

/** A step as the ticket lists it. */
export interface TicketStep {
  readonly id: JobStep;
  readonly title: string;
  /** Whose step it is, where a job is made more than one way. */
  readonly process?: string;
  /** Its live line. */
  summarise(bench: Pick<Bench, "recipe" | "computed" | "size">): string;
}

export interface StepScreen extends TicketStep {
  /** Ways to look at it. */
  readonly looks: readonly Look[];
  /** A hook. What it keeps is in hand: it is laid down when the step is left. */
  useStep(bench: Bench): StepView;
}

/** What a process shows at the Output step, before its files are made. */
export interface OutputPart {
  /** Whether there is anything to make. */
  readonly isReady: boolean;
  /** Its settings and what will come out. */
  readonly settings: ReactNode;
  /** Over what a person should know before it is too late. */
  readonly warningsTitle: string;
  readonly table: OwnTable | null;
}

/** A process on the workbench. */
export interface ProcessScreen {
  readonly process: Process;
  /** The step after the shapes. */
  readonly step: StepScreen;
  /** A hook. */
  useOutput(bench: Bench): OutputPart;
  summariseOutput(recipe: Recipe): string;
}
