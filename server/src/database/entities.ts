// The rows that must last. EntitySchema rather than decorators: the runtime strips types and emits no metadata.
import type { JobStep, RunState, TypefaceKind } from "@plain-palette/contract";
import type { ShopSettings, Stock } from "@plain-palette/core/shelf";
import { EntitySchema } from "typeorm";

/** A client's file, stored under its own hash and never changed. */
export interface ArtworkRow {
  hash: string;
  kind: string;
  size: number;
  width: number;
  height: number;
  hasAlpha: boolean;
  dpi: number | null;
  pages: number;
  content: "pixels" | "shapes" | "mixed";
  bytes: Buffer;
  thumbnail: Buffer;
}

export interface JobRow {
  id: string;
  number: number;
  title: string;
  client: string;
  step: JobStep;
  /** Version of the recipe in force. */
  head: number;
  /** Off the board, though nothing of it is gone. */
  isPutAway: boolean;
  /** A day, as 2026-03-04. */
  dueDay: string | null;
  clientMail: string;
  /** Of the recipe in force what the board lists: recipes may be megabytes. */
  garment: string;
  process: string | null;
  /** Names what the client sees of it. */
  seenKey: string;
  /** Version of which files were made last. */
  madeVersion: number | null;
  /** How it stands with the latest proof. */
  proofState: "none" | "waits" | "answered" | "yes";
  proofEndsAt: Date | null;
  /** When the client said yes last, and what to. */
  yesDay: string | null;
  yesKey: string;
  updatedAt: Date;
}

/** How a job's result looks, small, as a browser drew it of one version. */
export interface JobPictureRow {
  jobId: string;
  version: number;
  bytes: Buffer;
}

/** One version of a recipe. Versions form a tree: undo goes to the parent, redo to the newest child. */
export interface RecipeRow {
  jobId: string;
  version: number;
  parent: number | null;
  /** Of the form it had when it was saved: `readRecipe` gives today's. */
  body: object;
  /** The client's file that this version is of: a better one can replace it, and undo brings the old one back. */
  artworkHash: string;
  fileName: string;
  /** The browser's own name for the save; null where it has none. */
  saveId: string | null;
  createdAt: Date;
}

/** A place on the garment as this shop uses it. */
export interface PlacementRow {
  id: string;
  /** Order in the shop's list. */
  position: number;
  name: string;
  widthMm: number;
  areaWidthMm: number;
  areaHeightMm: number;
  /** Counted up with every change: two people do not overwrite each other. */
  version: number;
  /** Off the list, though it can be put back. */
  isPutAway: boolean;
}

/** One thing on the shelf. */
export interface StockRow extends Stock {
  id: string;
  version: number;
  /** Off the shelf, though it can be put back. */
  isPutAway: boolean;
}

/** A font file of the shop, unpacked; `id` is the SHA-256 of the file as it came. Never taken out: jobs may be set in it. */
export interface TypefaceRow {
  id: string;
  family: string;
  style: string;
  kind: TypefaceKind;
  scripts: string[];
  fileName: string;
  fsType: number | null;
  isPutAway: boolean;
  bytes: Buffer;
}

/** The shop's settings: one row. */
export interface SettingsRow {
  id: number;
  body: ShopSettings;
  version: number;
}

export interface RunRow {
  id: string;
  jobId: string;
  recipeVersion: number;
  /** How the job is made, in its id. */
  process: string;
  state: RunState;
  progress: number;
  stage: string;
  error: string | null;
  stopRequested: boolean;
  /** Last sign of life of whoever works on it. */
  heartbeatAt: Date | null;
  /** Who works on it: a stranger's late write must not count. */
  claim: string | null;
  /** The window or program that ordered it. */
  askedBy: string;
  /** How often it was begun. */
  attempts: number;
  createdAt: Date;
}

export interface RunFileRow {
  runId: string;
  name: string;
  mediaType: string;
  bytes: Buffer;
}

export const ArtworkEntity = new EntitySchema<ArtworkRow>({
  name: "artwork",
  tableName: "artworks",
  columns: {
    hash: { type: "char", length: 64, primary: true },
    kind: { type: "varchar", length: 8 },
    size: { type: "int", unsigned: true },
    width: { type: "int", unsigned: true },
    height: { type: "int", unsigned: true },
    hasAlpha: { type: "boolean", name: "has_alpha" },
    dpi: { type: "double", nullable: true },
    pages: { type: "int", unsigned: true },
    content: { type: "varchar", length: 8 },
    bytes: { type: "longblob", select: false },
    thumbnail: { type: "mediumblob", select: false },
  },
});

export const JobEntity = new EntitySchema<JobRow>({
  name: "job",
  tableName: "jobs",
  columns: {
    id: { type: "char", length: 36, primary: true },
    number: { type: "int", unsigned: true, generated: "increment" },
    title: { type: "varchar", length: 120 },
    client: { type: "varchar", length: 120 },
    step: { type: "varchar", length: 16 },
    head: { type: "int", unsigned: true },
    isPutAway: { type: "boolean", name: "is_put_away" },
    dueDay: { type: "date", nullable: true, name: "due_day" },
    clientMail: { type: "varchar", length: 254, name: "client_mail", default: "" },
    garment: { type: "char", length: 7, default: "#ffffff" },
    process: { type: "varchar", length: 40, nullable: true },
    seenKey: { type: "char", length: 16, name: "seen_key", default: "" },
    madeVersion: { type: "int", unsigned: true, nullable: true, name: "made_version" },
    proofState: { type: "varchar", length: 12, name: "proof_state", default: "none" },
    proofEndsAt: { type: "datetime", precision: 3, nullable: true, name: "proof_ends_at" },
    yesDay: { type: "date", nullable: true, name: "yes_day" },
    yesKey: { type: "char", length: 16, name: "yes_key", default: "" },
    updatedAt: { type: "datetime", precision: 3, name: "updated_at" },
  },
});

export const JobPictureEntity = new EntitySchema<JobPictureRow>({
  name: "job_picture",
  tableName: "job_pictures",
  columns: {
    jobId: { type: "char", length: 36, primary: true, name: "job_id" },
    version: { type: "int", unsigned: true },
    bytes: { type: "mediumblob", select: false },
  },
});

export const RecipeEntity = new EntitySchema<RecipeRow>({
  name: "recipe",
  tableName: "recipes",
  columns: {
    jobId: { type: "char", length: 36, primary: true, name: "job_id" },
    version: { type: "int", unsigned: true, primary: true },
    parent: { type: "int", unsigned: true, nullable: true },
    body: { type: "json" },
    artworkHash: { type: "char", length: 64, name: "artwork_hash" },
    fileName: { type: "varchar", length: 255, name: "file_name" },
    saveId: { type: "char", length: 36, nullable: true, name: "save_id" },
    createdAt: { type: "datetime", precision: 3, name: "created_at" },
  },
});

export const PlacementEntity = new EntitySchema<PlacementRow>({
  name: "placement",
  tableName: "placements",
  columns: {
    id: { type: "char", length: 36, primary: true },
    position: { type: "int", unsigned: true, generated: "increment" },
    name: { type: "varchar", length: 60 },
    widthMm: { type: "double", name: "width_mm" },
    areaWidthMm: { type: "double", name: "area_width_mm" },
    areaHeightMm: { type: "double", name: "area_height_mm" },
    version: { type: "int", unsigned: true },
    isPutAway: { type: "boolean", name: "is_put_away", default: false },
  },
});

export const StockEntity = new EntitySchema<StockRow>({
  name: "stock",
  tableName: "stock",
  columns: {
    id: { type: "char", length: 36, primary: true },
    kind: { type: "varchar", length: 16 },
    code: { type: "varchar", length: 40 },
    name: { type: "varchar", length: 60 },
    colour: { type: "json" },
    detail: { type: "varchar", length: 120 },
    film: { type: "json", nullable: true },
    stones: { type: "json", nullable: true },
    version: { type: "int", unsigned: true },
    isPutAway: { type: "boolean", name: "is_put_away", default: false },
  },
});

export const TypefaceEntity = new EntitySchema<TypefaceRow>({
  name: "typeface",
  tableName: "typefaces",
  columns: {
    id: { type: "char", length: 64, primary: true },
    family: { type: "varchar", length: 120 },
    style: { type: "varchar", length: 60 },
    kind: { type: "varchar", length: 16 },
    scripts: { type: "json" },
    fileName: { type: "varchar", length: 200, name: "file_name" },
    fsType: { type: "smallint", unsigned: true, nullable: true, name: "fs_type" },
    isPutAway: { type: "boolean", name: "is_put_away" },
    bytes: { type: "longblob", select: false },
  },
});

export const SettingsEntity = new EntitySchema<SettingsRow>({
  name: "settings",
  tableName: "settings",
  columns: {
    id: { type: "tinyint", unsigned: true, primary: true },
    body: { type: "json" },
    version: { type: "int", unsigned: true },
  },
});

export const RunEntity = new EntitySchema<RunRow>({
  name: "run",
  tableName: "runs",
  columns: {
    id: { type: "char", length: 36, primary: true },
    jobId: { type: "char", length: 36, name: "job_id" },
    recipeVersion: { type: "int", unsigned: true, name: "recipe_version" },
    process: { type: "varchar", length: 40 },
    state: { type: "varchar", length: 8 },
    progress: { type: "double" },
    stage: { type: "varchar", length: 80 },
    error: { type: "varchar", length: 500, nullable: true },
    stopRequested: { type: "boolean", name: "stop_requested" },
    heartbeatAt: { type: "datetime", precision: 3, nullable: true, name: "heartbeat_at" },
    claim: { type: "char", length: 36, nullable: true },
    askedBy: { type: "varchar", length: 100, name: "asked_by" },
    attempts: { type: "int", unsigned: true, default: 0 },
    createdAt: { type: "datetime", precision: 3, name: "created_at" },
  },
});

export const RunFileEntity = new EntitySchema<RunFileRow>({
  name: "run_file",
  tableName: "run_files",
  columns: {
    runId: { type: "char", length: 36, primary: true, name: "run_id" },
    name: { type: "varchar", length: 80, primary: true },
    mediaType: { type: "varchar", length: 80, name: "media_type" },
    bytes: { type: "longblob", select: false },
  },
});
