// Stones on the bench: the setting at the step after the shapes, templates at the Output step.
import type { Spot } from "@plain-palette/core/reduce";
import { gapsOf, type Stones, stones } from "@plain-palette/core/stone";
import { useMemo, useState } from "react";
import type { TableLayer } from "../../light-table/layers.ts";
import { count } from "../../parts/count.ts";
import { resultLayers } from "../drawn-trace.ts";
import { useShapesResult } from "../looks.ts";
import type { Bench, ProcessScreen, StepScreen } from "../screen.ts";
import { useStoneDesk } from "./stone-desk.ts";
import { gapLayers, stoneLayer } from "./stone-layers.ts";
import { type Drag, stoneTool } from "./stone-tool.ts";
import { type Shows, StonesStep } from "./stones-step.tsx";
import { TemplateSettings } from "./template-settings.tsx";
import { templateTable } from "./template-table.ts";

const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

const stonesIn = ({ made }: Bench["computed"]): Stones | null => made && stones.resultIn(made);

const step: StepScreen = {
  id: "make",
  title: stones.title,
  looks: ["source", "result", "split", "outlines"],
  summarise({ recipe, computed }) {
    const made = stonesIn(computed);
    const gap = `gap ${gapsOf(stones.settingsIn(recipe)).gapMm} mm`;
    return made ? `${count(made.stones.length, "stone")}, ${gap}` : gap;
  },
  useStep(bench) {
    const { computed, showPlace, mmPerPx, recipe } = bench;
    const made = stonesIn(computed);
    const spots = computed.reduced?.spots;
    const shapes = useShapesResult(bench);
    const [hidden, setHidden] = useState(NOTHING_HIDDEN);
    const [shows, setShows] = useState<Shows>({ gaps: false, shapes: false });
    const [drag, setDrag] = useState<Drag | null>(null);
    const desk = useStoneDesk(made, computed.prepared?.frame ?? null, mmPerPx);
    const { gapMm, leastMm } = gapsOf(stones.settingsIn(recipe));
    const laid = useMemo(() => {
      if (!made || !spots) return null;
      return spots.flatMap(({ id, rgb }): TableLayer[] => {
        const own = hidden.has(id) ? [] : made.stones.filter(({ spotId }) => spotId === id);
        return own.length > 0 ? [stoneLayer(own, rgb, mmPerPx)] : [];
      });
    }, [made, spots, hidden, mmPerPx]);
    const marks = useMemo(
      () => (made && shows.gaps ? gapLayers(made.stones, { gapMm, leastMm }, mmPerPx) : []),
      [made, shows.gaps, gapMm, leastMm, mmPerPx],
    );
    const { trace } = bench;
    const { garment } = recipe.artwork;
    const { decided } = recipe.colours;
    // What is made another way lies on the table as it will look.
    const rest = useMemo(() => {
      const isOurs = ({ id }: Spot) => (decided[id]?.process ?? recipe.process) === stones.id;
      if (!trace || !spots || spots.every((spot) => spot.role !== "ink" || isOurs(spot))) return [];
      return resultLayers(
        trace,
        spots.map((spot) => (isOurs(spot) ? { ...spot, role: "garment" as const } : spot)),
        garment,
      );
    }, [trace, spots, garment, decided, recipe.process]);
    const result = useMemo(
      () => (laid ? [...((shows.shapes && shapes) || rest), ...laid] : shapes),
      [laid, shows.shapes, shapes, rest],
    );
    const report = computed.made?.find(({ process }) => process === stones.id)?.report ?? null;
    return {
      wishes: { upTo: "make" },
      result,
      marks,
      canFade: true,
      tool: made ? stoneTool({ made, desk, mmPerPx, drag, setDrag }) : null,
      panel: (
        <StonesStep
          made={made}
          spots={spots ?? []}
          warnings={report?.warnings ?? []}
          thin={report?.thin ?? []}
          hidden={hidden}
          setHidden={setHidden}
          desk={desk}
          shows={shows}
          setShows={setShows}
          onPlace={showPlace}
        />
      ),
    };
  },
};

export const stonesScreen: ProcessScreen = {
  process: stones,
  step,
  useOutput({ job, recipe, computed, isSourceHeld }) {
    const made = stonesIn(computed);
    const { template } = stones.settingsIn(recipe);
    return {
      isReady: (made?.stones.length ?? 0) > 0,
      settings: <TemplateSettings jobId={job.id} />,
      warningsTitle: "Before you set",
      table: useMemo(
        () => (made && !isSourceHeld ? templateTable(made, template) : null),
        [made, template, isSourceHeld],
      ),
    };
  },
  summariseOutput(recipe) {
    const { split, isMirrored } = stones.settingsIn(recipe).template;
    const what = { one: "one template", sizes: "a template for each size", colours: "a template for each colour" };
    return isMirrored ? `${what[split]}, mirrored` : what[split];
  },
};
