// Runs: long work of the server, watched and stopped from the web.
import { z } from "zod";

export const runStateSchema = z.enum(["queued", "running", "done", "failed", "stopped"]);
export type RunState = z.infer<typeof runStateSchema>;

export const runSchema = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  recipeVersion: z.number().int(),
  /** What the job is made with. */
  process: z.string(),
  state: runStateSchema,
  /** 0..1. */
  progress: z.number(),
  /** What is being done, in words. */
  stage: z.string(),
  error: z.string().nullable(),
  files: z.array(z.object({ name: z.string(), bytes: z.number().int() })),
  createdAt: z.iso.datetime(),
});
export type Run = z.infer<typeof runSchema>;

export const runListSchema = z.array(runSchema);
export const runStartSchema = z.object({ recipeVersion: z.number().int().min(1) });

/** Whether a run will not change any more. */
export function isOver(state: RunState): boolean {
  return state === "done" || state === "failed" || state === "stopped";
}
