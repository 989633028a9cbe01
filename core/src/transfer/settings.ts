// What a person decides about transfer film, part of the recipe.
import { CUT_FORMATS } from "../cut/index.ts";
import { FILM_FACTS, type FilmFact } from "../shelf/index.ts";
import {
  CUT_GAP_MM,
  CUT_ISLAND_MM,
  CUT_STRIP_MM,
  CUT_TOLERANCE_MM,
  FINAL_S,
  LAP_MM,
  PRESS_CELSIUS,
  ROLL_WIDTH_MM,
  TACK_S,
} from "../trade/index.ts";
import { spotIdSchema, z } from "../zod/index.ts";

/** What a person may type, where other ways in have to say the same. */
export const TRANSFER_LIMITS = {
  lapMm: { min: 0, max: 5 },
  toleranceMm: { min: 0.01, max: 0.5 },
  stripMm: { min: 0, max: 10 },
  gapMm: { min: 0, max: 10 },
  islandMm: { min: 0, max: 20 },
  gapOnRollMm: { min: 0, max: 100 },
  edgeMm: { min: 0, max: 100 },
  boxMm: { min: 1, max: 50 },
  weedLinesMm: { min: 0, max: 1000 },
  distanceMm: { min: 0, max: 50 },
  closesHolesMm: { min: 0, max: 100 },
  bleedMm: { min: 0, max: 20 },
} as const;

/**
 * How a layer meets those that are pressed after it. Flush: edge to edge. Lapped: it runs on under them by the lap. Solid: it
 * stays whole under all that it encloses.
 */
export const LAYER_MODES = ["flush", "lapped", "solid"] as const;
export type LayerMode = (typeof LAYER_MODES)[number];

const limit = (key: keyof typeof TRANSFER_LIMITS) =>
  z.number().min(TRANSFER_LIMITS[key].min).max(TRANSFER_LIMITS[key].max);

const fact = (key: FilmFact) => z.number().min(FILM_FACTS[key].min).max(FILM_FACTS[key].max);

export const transferSettingsSchema = z.object({
  lapMm: limit("lapMm").default(LAP_MM),
  /** How far an edge that the program draws, under another layer, may lie off its exact place. Traced edges stay as they are. */
  toleranceMm: limit("toleranceMm").default(CUT_TOLERANCE_MM),
  /** Spot ids in the press order that the person chose; the others go where they are proposed. */
  order: z.array(spotIdSchema).max(200).default([]),
  /** What was decided on a spot's layer, by the spot's id. */
  decided: z
    .record(
      spotIdSchema,
      z.object({
        mode: z.enum(LAYER_MODES).optional(),
        /** Not made, though others lie as if it were: to be coloured in by hand, or left for another day. */
        isLeftOut: z.boolean().optional(),
      }),
    )
    .default({}),
  /** What cuts and weeds, mm: strips, gaps in a layer, and islands across. */
  limits: z
    .object({
      stripMm: limit("stripMm").default(CUT_STRIP_MM),
      gapMm: limit("gapMm").default(CUT_GAP_MM),
      islandMm: limit("islandMm").default(CUT_ISLAND_MM),
    })
    .prefault({}),
  /** Strips that do not cut are widened to what does. */
  thickensStrips: z.boolean().default(false),
  /** Islands that get lost in weeding go to the film beside them. */
  givesIslands: z.boolean().default(false),
  /** Cut from the back of the film, as it lies on the cutter. */
  isMirrored: z.boolean().default(true),
  /** How films without numbers of their own are pressed. */
  press: z
    .object({
      celsius: fact("celsius").default(PRESS_CELSIUS),
      tackS: fact("tackS").default(TACK_S),
      finalS: fact("finalS").default(FINAL_S),
    })
    .prefault({}),
  /** How the job's pieces are laid on rolls. */
  sheets: z
    .object({
      isMade: z.boolean().default(true),
      /** Of films without numbers of their own. */
      rollWidthMm: fact("rollWidthMm").default(ROLL_WIDTH_MM),
      pricePerMetre: fact("pricePerMetre").default(0),
      /** Between pieces, and kept clear at the roll's edges. */
      gapMm: limit("gapOnRollMm").default(5),
      edgeMm: limit("edgeMm").default(5),
      /** A box to weed along, this far round each piece. */
      hasBox: z.boolean().default(true),
      boxMm: limit("boxMm").default(5),
      /** Waste is parted by lines this far from each other; 0: it is not. */
      weedLinesMm: limit("weedLinesMm").default(80),
      /** The same small marks in every layer, to lay them by: each piece is then as large as the design. */
      hasMarks: z.boolean().default(false),
      /** A name beside each piece, for cutters that have a pen. */
      hasNames: z.boolean().default(false),
    })
    .prefault({}),
  /** Instead of layers: the art printed on film in one piece, and cut round. */
  printed: z
    .object({
      isWanted: z.boolean().default(false),
      /** Its clean shapes, or the picture with all its shades. */
      art: z.enum(["shapes", "picture"]).default("shapes"),
      /** From the art's outline to the cut. */
      distanceMm: limit("distanceMm").default(2),
      /** Holes of the cut line that are narrower than this are closed. */
      closesHolesMm: limit("closesHolesMm").default(5),
      /** Colour beyond the art's outline. */
      bleedMm: limit("bleedMm").default(1),
    })
    .prefault({}),
  formats: z.array(z.enum(CUT_FORMATS)).max(CUT_FORMATS.length).default(["svg"]),
});
export type TransferSettings = z.infer<typeof transferSettingsSchema>;
