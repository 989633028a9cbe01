// The ways in which a design is made. This is the one place outside their folders that names them.
import { screensSettingsSchema } from "../screens/index.ts";
import { z } from "../zod/index.ts";

/** A process as the recipe names it. */
export const processSchema = z.enum(["screens"]);

/** The settings of every process: who changes the process finds what was decided for it before. */
export const processesSchema = z.object({ screens: screensSettingsSchema.prefault({}) });
