// Which process a step's address speaks of: a job may be made with several.
import { processesIn, type Recipe } from "@plain-palette/core/recipe";
import type { TicketStep } from "./screen.ts";

/** Where a step of a job is; `process` where it is not the one that the job itself is made with. */
export function stepAddress(
  jobId: string,
  { id, process }: Pick<TicketStep, "id" | "process">,
  recipe: Recipe,
): string {
  return `/jobs/${jobId}/${id}${process && process !== recipe.process ? `?with=${process}` : ""}`;
}

/** The process that an address asks for, if the job is made with it; else the job's own. */
export function processAt(params: URLSearchParams, recipe: Recipe): string {
  const wanted = params.get("with");
  return processesIn(recipe).some(({ id }) => id === wanted) && wanted ? wanted : recipe.process;
}
