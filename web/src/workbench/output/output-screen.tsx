// Output on the bench: what the process shows of what comes out, and the files.
import { STEP_NAMES } from "../../job/step-names.ts";
import { useThinLimits } from "../../shop/use-shop.ts";
import { useShapesResult } from "../looks.ts";
import { processScreenOf } from "../process-screens.ts";
import type { StepScreen } from "../screen.ts";
import { OutputStep } from "./output.tsx";

export const outputScreen: StepScreen = {
  id: "output",
  title: STEP_NAMES.output,
  looks: ["source", "result", "split", "outlines"],
  summarise: ({ recipe }) => processScreenOf(recipe.process).summariseOutput(recipe),
  useStep(bench) {
    const { computed, recipe, showPlace } = bench;
    const part = processScreenOf(recipe.process).useOutput(bench);
    return {
      wishes: { upTo: "make", checkThin: useThinLimits(recipe.process) },
      result: useShapesResult(bench),
      table: part.table,
      panel: <OutputStep warnings={computed.warnings} part={part} onPlace={showPlace} />,
    };
  },
};
