export {
  type ArtworkFacts,
  artworkSchema,
  type HeadMove,
  headMoveSchema,
  JOB_STEPS,
  type Job,
  type JobCard,
  type JobPatch,
  type JobStep,
  jobCardSchema,
  jobListSchema,
  jobPatchSchema,
  jobSchema,
  jobStepSchema,
  type RecipeSave,
  recipeSaveSchema,
} from "./jobs.ts";
export { type Problem, problemSchema } from "./problem.ts";
export { isOver, type Run, type RunState, runListSchema, runSchema, runStartSchema, runStateSchema } from "./runs.ts";
