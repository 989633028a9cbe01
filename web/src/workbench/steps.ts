// The steps of a job on the workbench, in the order of work.
import type { Recipe } from "@plain-palette/core/recipe";
import { artworkScreen } from "./artwork/artwork-screen.tsx";
import { coloursScreen } from "./colours/colours-screen.tsx";
import { outputScreen } from "./output/output-screen.tsx";
import { processScreenOf } from "./process-screens.ts";
import { proofStep } from "./proof/proof-step.ts";
import type { StepScreen, TicketStep } from "./screen.ts";
import { shapesScreen } from "./shapes/shapes-screen.tsx";

/** Those with a bench. The one after the shapes belongs to the process that the job is made with. */
export function benchSteps(recipe: Recipe): readonly [StepScreen, ...StepScreen[]] {
  return [artworkScreen, coloursScreen, shapesScreen, processScreenOf(recipe.process).step, outputScreen];
}

/** All, as the ticket lists them. */
export function ticketSteps(recipe: Recipe): readonly TicketStep[] {
  return [...benchSteps(recipe), proofStep];
}
