// The pretend process on the workbench. Loading this file adds it to the others.
import { useMemo } from "react";
import { type Stencil, stencils } from "../../../core/src/testing/stencils.test.support.ts";
import { makePieces } from "../../src/light-table/pieces.ts";
import { Group, Panel } from "../../src/workbench/panel.tsx";
import { addProcessScreen } from "../../src/workbench/process-screens.ts";
import type { Bench } from "../../src/workbench/screen.ts";

const sheetsIn = ({ made }: Bench["computed"]): readonly Stencil[] | null => made && stencils.resultIn(made);

addProcessScreen({
  process: stencils,
  step: {
    id: "make",
    title: stencils.title,
    looks: ["source", "result"],
    summarise: ({ computed }) => `${sheetsIn(computed)?.length ?? "no"} sheets`,
    useStep({ computed }) {
      const sheets = sheetsIn(computed);
      const result = useMemo(
        () =>
          sheets && [
            {
              kind: "fills" as const,
              fills: sheets.map(({ openings }) => ({ colour: "#00b050", path: makePieces(openings, true) })),
            },
          ],
        [sheets],
      );
      return {
        wishes: { upTo: "make" },
        result,
        panel: (
          <Panel>
            <Group title="Sheets in turn">
              <ol aria-label="Sheets">
                {sheets?.map(({ id, name }) => (
                  <li key={id}>{name}</li>
                ))}
              </ol>
            </Group>
          </Panel>
        ),
      };
    },
  },
  useOutput: ({ computed }) => ({
    isReady: (sheetsIn(computed)?.length ?? 0) > 0,
    settings: null,
    warningsTitle: "Before you cut",
    table: null,
  }),
  summariseOutput: () => "one drawing of all sheets",
});
