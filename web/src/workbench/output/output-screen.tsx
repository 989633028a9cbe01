// Output on the bench: what the process shows of what comes out, and the files.
import { processesIn } from "@plain-palette/core/recipe";
import { useSearchParams } from "react-router";
import { STEP_NAMES } from "../../job/step-names.ts";
import { useThinLimits } from "../../shop/use-shop.ts";
import { useShapesResult } from "../looks.ts";
import { processAt } from "../process-at.ts";
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
    const [params, setParams] = useSearchParams();
    const shown = processAt(params, recipe);
    // The bench of a step is another one for each process: what is called here stays the same for as long as it is open.
    const part = processScreenOf(shown).useOutput(bench);
    const ways = processesIn(recipe);
    return {
      wishes: { upTo: "make", checkThin: useThinLimits(recipe.process) },
      result: useShapesResult(bench),
      table: part.table,
      panel: (
        <OutputStep
          warnings={computed.warnings}
          part={part}
          ways={ways.length > 1 ? ways.map(({ id, name }) => ({ value: id, text: name })) : null}
          shown={shown}
          onShow={(id) => setParams(id === recipe.process ? {} : { with: id })}
          onPlace={showPlace}
        />
      ),
    };
  },
};
