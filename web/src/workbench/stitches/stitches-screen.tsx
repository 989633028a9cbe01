// Stitches on the bench: the sewn plan at the step after the shapes, stitch files at the Output step.
import { COMMANDS, chooseHoop, type Stitches, stitches } from "@plain-palette/core/stitch";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import type { TableLayer } from "../../light-table/layers.ts";
import { count } from "../../parts/count.ts";
import { useShapesResult } from "../looks.ts";
import { Fact, Group } from "../panel.tsx";
import type { Bench, ProcessScreen, StepScreen } from "../screen.ts";
import { useAreaDesk } from "./area-desk.ts";
import { areaTool, type Hand } from "./area-tool.ts";
import { PlayBar } from "./play-bar.tsx";
import { type Shows, StitchesStep } from "./stitches-step.tsx";
import { densityLayer, hoopLayer, needleLayer, threadLayers, wayLayers } from "./thread-layers.ts";
import { usePlayback } from "./use-playback.ts";

const NOTHING_HIDDEN: ReadonlySet<string> = new Set();
const NO_LAYERS: readonly TableLayer[] = [];

const stitchesIn = ({ made }: Bench["computed"]): Stitches | null => made && stitches.resultIn(made);

const step: StepScreen = {
  id: "make",
  title: stitches.title,
  looks: ["source", "result", "split", "outlines"],
  summarise({ recipe, computed }) {
    const plan = stitchesIn(computed)?.plan;
    const { fabric } = stitches.settingsIn(recipe);
    if (!plan) return fabric;
    const sewn = plan.command.reduce((sum, code) => sum + (COMMANDS[code] === "stitch" ? 1 : 0), 0);
    return `${count(sewn, "stitch", "stitches")} on ${fabric}`;
  },
  useStep(bench) {
    const { computed, showPlace, mmPerPx, look } = bench;
    const made = stitchesIn(computed);
    const plan = made?.plan ?? null;
    const shapes = useShapesResult(bench);
    const [hidden, setHidden] = useState(NOTHING_HIDDEN);
    const [shows, setShows] = useState<Shows>({ hoop: true, needles: false, ways: false, density: false });
    const [hand, setHand] = useState<Hand | null>(null);
    const desk = useAreaDesk(made, computed.prepared?.frame ?? null, mmPerPx);
    const playback = usePlayback(plan, mmPerPx);
    const { at } = playback;
    const isWhole = at === null;
    const thread = useMemo(() => (plan ? threadLayers(plan, hidden, mmPerPx) : null), [plan, hidden, mmPerPx]);
    const settings = stitches.settingsIn(bench.recipe);
    const { mostPerMm2, hoops } = settings.machine;
    const marks = useMemo(() => {
      if (!plan || !isWhole) return NO_LAYERS;
      return [
        ...(shows.hoop ? [hoopLayer(plan, chooseHoop(plan.widthMm, plan.heightMm, settings), mmPerPx)] : []),
        ...(shows.density ? [densityLayer(plan, mostPerMm2, mmPerPx)] : []),
        ...(shows.ways ? wayLayers(plan, mmPerPx) : []),
        ...(shows.needles ? [needleLayer(plan, mmPerPx)] : []),
      ];
    }, [plan, isWhole, shows, settings.hoop?.widthMm, settings.hoop?.heightMm, hoops, mostPerMm2, mmPerPx]);
    const report = computed.made?.find(({ process }) => process === stitches.id)?.report ?? null;
    // While it is played its place is told ten times a second: the panel stays as it is.
    const panel = useMemo(
      () => (
        <StitchesStep
          made={made}
          warnings={report?.warnings ?? []}
          choice={{ hidden, setHidden }}
          desk={desk}
          shows={shows}
          setShows={setShows}
          onPlace={showPlace}
        />
      ),
      [made, report, hidden, desk.chosen, desk.scope, settings, shows],
    );
    return {
      wishes: { upTo: "make" },
      // While it is played the cloth is bare.
      result: isWhole ? (thread ?? shapes) : NO_LAYERS,
      marks,
      moving: isWhole || look === "source" ? null : playback.film,
      canFade: isWhole,
      legend: plan && look !== "source" ? <PlayBar plan={plan} playback={playback} /> : null,
      // Nothing is in hand while it is played.
      tool:
        made && isWhole
          ? areaTool({
              ...{ areas: made.areas, chosen: desk.chosen, mmPerPx, hand, setHand },
              choose: (face) => {
                desk.choose(face);
                desk.setScope("area");
              },
              turn: (angleDeg) => desk.decide("area", { angleDeg }),
              move: desk.movePlace,
            })
          : null,
      panel,
    };
  },
};

export const stitchesScreen: ProcessScreen = {
  process: stitches,
  step,
  useOutput({ job, computed }) {
    const made = stitchesIn(computed);
    return {
      isReady: (made?.plan.colours.length ?? 0) > 0,
      settings: (
        <Group title="Stitch files">
          <dl>
            <Fact label="stitches.csv">the plan, stitch by stitch</Fact>
            <Fact label="stitches.svg">thread as it lies, true size</Fact>
            <Fact label="worksheet.pdf">a page for the machine</Fact>
          </dl>
          <p className="pt-1 text-xs text-soft">
            The{" "}
            <Link className="underline" to={`/practice?job=${job.id}`}>
              practice bench
            </Link>{" "}
            sews the list that was made last.
          </p>
        </Group>
      ),
      warningsTitle: "Before you sew",
      table: null,
    };
  },
  summariseOutput: () => "a stitch list",
};
