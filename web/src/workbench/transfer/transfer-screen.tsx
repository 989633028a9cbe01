// Transfer film on the bench: layers at the step after the shapes, cut files at the Output step.
import { formatHex } from "@plain-palette/core/colour";
import { type Layering, transfer } from "@plain-palette/core/transfer";
import { useMemo, useState } from "react";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePieces } from "../../light-table/pieces.ts";
import { count } from "../count.ts";
import { useShapesResult } from "../looks.ts";
import type { Bench, ProcessScreen, StepScreen } from "../screen.ts";
import { type BareShirt, drawBareShirt } from "./bare-shirt.ts";
import { LayersStep } from "./layers-step.tsx";
import { MovementGroup, USUAL_MOVEMENT } from "./movement.tsx";

const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

const layeringIn = ({ made }: Bench["computed"]): Layering | null =>
  (made && transfer.resultIn(made)?.layering) ?? null;

const step: StepScreen = {
  id: "make",
  title: transfer.title,
  looks: ["source", "result", "split", "outlines"],
  summarise({ recipe, computed }) {
    const layering = layeringIn(computed);
    const lap = `lap ${transfer.settingsIn(recipe).lapMm} mm`;
    return layering ? `${count(layering.layers.length, "layer")}, ${lap}` : lap;
  },
  useStep(bench) {
    const { computed, showPlace } = bench;
    const layering = layeringIn(computed);
    const shapes = useShapesResult(bench);
    const [hidden, setHidden] = useState(NOTHING_HIDDEN);
    const [movement, setMovement] = useState(USUAL_MOVEMENT);
    const [isMoving, setMoving] = useState(false);
    const bare = useMemo(
      () => (layering && isMoving ? drawBareShirt(layering, movement) : null),
      [layering, isMoving, movement],
    );
    const thin = computed.made?.find(({ process }) => process === transfer.id)?.report.thin ?? [];
    return {
      wishes: { upTo: "make" },
      result: useMemo(() => (layering ? [filmLayer(layering, hidden)] : shapes), [layering, hidden, shapes]),
      marks: useMemo(() => (bare ? [bareLayer(bare)] : []), [bare]),
      canFade: false,
      panel: (
        <LayersStep
          layering={layering}
          thin={thin}
          choice={{ hidden, setHidden }}
          movement={
            <MovementGroup
              layering={layering}
              movement={movement}
              onMovement={setMovement}
              isShown={isMoving}
              onShow={setMoving}
              bare={bare}
            />
          }
          onPlace={showPlace}
        />
      ),
    };
  },
};

function bareLayer({ bitmap, pxPerPixel }: BareShirt): TableLayer {
  return {
    ...{ kind: "bitmap", bitmap, opacity: 1 },
    transform: { scaleX: pxPerPixel, scaleY: pxPerPixel, dx: 0, dy: 0 },
  };
}

/** Layers that are not hidden, first pressed lowest. */
function filmLayer({ layers }: Layering, hidden: ReadonlySet<string>): TableLayer {
  const fills = layers
    .filter(({ spotId }) => !hidden.has(spotId))
    .map(({ rgb, region }) => ({ colour: formatHex(rgb), path: makePieces(region, true) }));
  return { kind: "fills", fills };
}

export const transferScreen: ProcessScreen = {
  process: transfer,
  step,
  useOutput: ({ computed }) => ({
    isReady: (layeringIn(computed)?.layers.length ?? 0) > 0,
    settings: null,
    warningsTitle: "Before you cut",
    table: null,
  }),
  summariseOutput: (recipe) =>
    transfer.settingsIn(recipe).isMirrored ? "cut files, mirrored" : "cut files, right-reading",
};
