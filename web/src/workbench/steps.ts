// The steps of a job on the workbench, in the order of work.
import { processesIn, type Recipe } from "@plain-palette/core/recipe";
import { artworkScreen } from "./artwork/artwork-screen.tsx";
import { coloursScreen } from "./colours/colours-screen.tsx";
import { outputScreen } from "./output/output-screen.tsx";
import { processScreenOf } from "./process-screens.ts";
import { proofStep } from "./proof/proof-step.ts";
import type { StepScreen, TicketStep } from "./screen.ts";
import { shapesScreen } from "./shapes/shapes-screen.tsx";

/** Those with a bench. After the shapes comes one for each process that the job, or a spot of it, is made with. */
export function benchSteps(recipe: Recipe): readonly [StepScreen, ...StepScreen[]] {
  const makeSteps = processesIn(recipe).map(({ id }) => ({ ...processScreenOf(id).step, process: id }));
  return [artworkScreen, coloursScreen, shapesScreen, ...makeSteps, outputScreen];
}

/** All, as the ticket lists them. */
export function ticketSteps(recipe: Recipe): readonly TicketStep[] {
  return [...benchSteps(recipe), proofStep];
}
