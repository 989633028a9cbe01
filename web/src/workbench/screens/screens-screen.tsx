// Screens on the bench: plates at the step after the shapes, films at the Output step.
import { formatHex } from "@plain-palette/core/colour";
import { layOutFilms, type Separation, screens } from "@plain-palette/core/screens";
import { useMemo, useState } from "react";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePieces } from "../../light-table/pieces.ts";
import { count } from "../../parts/count.ts";
import { useShapesResult } from "../looks.ts";
import type { Bench, ProcessScreen, StepScreen } from "../screen.ts";
import { filmTable } from "./film-table.ts";
import { FilmSettings } from "./films.tsx";
import { SeparationsStep } from "./separations.tsx";

const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

const separationIn = ({ made }: Bench["computed"]): Separation | null => made && screens.resultIn(made);

const step: StepScreen = {
  id: "make",
  title: screens.title,
  looks: ["source", "result", "split", "outlines"],
  summarise({ recipe, computed }) {
    const separation = separationIn(computed);
    const trap = `trap ${screens.settingsIn(recipe).trapMm} mm`;
    return separation ? `${count(separation.plates.length, "plate")}, ${trap}` : trap;
  },
  useStep(bench) {
    const { computed, showPlace } = bench;
    const separation = separationIn(computed);
    const shapes = useShapesResult(bench);
    const [hidden, setHidden] = useState(NOTHING_HIDDEN);
    return {
      wishes: { upTo: "make" },
      result: useMemo(() => (separation ? [plateLayer(separation, hidden)] : shapes), [separation, hidden, shapes]),
      canFade: false,
      panel: <SeparationsStep computed={computed} choice={{ hidden, setHidden }} onPlace={showPlace} />,
    };
  },
};

/** Plates that are not hidden, first printed lowest. */
function plateLayer({ plates }: Separation, hidden: ReadonlySet<string>): TableLayer {
  const fills = plates
    .filter(({ id }) => !hidden.has(id))
    .map(({ rgb, region }) => ({ colour: formatHex(rgb), path: makePieces(region, true) }));
  return { kind: "fills", fills };
}

export const screensScreen: ProcessScreen = {
  process: screens,
  step,
  useOutput({ job, recipe, computed, isSourceHeld }) {
    const separation = separationIn(computed);
    const { films: settings } = screens.settingsIn(recipe);
    const [chosen, setChosen] = useState(0);
    const { number, title, client } = job;
    const films = useMemo(
      () =>
        separation &&
        layOutFilms(separation, settings, {
          job: `${number} ${title}`,
          client: client || "no client given",
          date: new Date().toISOString().slice(0, 10),
        }),
      [separation, settings, number, title, client],
    );
    const count = films?.films.length ?? 0;
    const shown = Math.min(chosen, Math.max(0, count - 1));
    return {
      isReady: count > 0,
      settings: <FilmSettings films={films} shown={shown} onShow={setChosen} />,
      warningsTitle: "Before you burn",
      table: useMemo(
        () => (films && count > 0 && !isSourceHeld ? filmTable(films, shown) : null),
        [films, count, shown, isSourceHeld],
      ),
    };
  },
  summariseOutput: (recipe) =>
    screens.settingsIn(recipe).films.isMirrored ? "films, mirrored" : "films, right-reading",
};
