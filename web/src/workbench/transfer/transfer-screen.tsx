// Transfer film on the bench: layers at the step after the shapes, cut files at the Output step.
import { formatHex } from "@plain-palette/core/colour";
import { type Layering, type PrintedFilm, type Transfer, transfer } from "@plain-palette/core/transfer";
import { useMemo, useState } from "react";
import type { TableLayer } from "../../light-table/layers.ts";
import { makePath2D, makePieces } from "../../light-table/pieces.ts";
import { count } from "../../parts/count.ts";
import { useShapesResult } from "../looks.ts";
import type { Bench, ProcessScreen, StepScreen } from "../screen.ts";
import { type BareShirt, drawBareShirt } from "./bare-shirt.ts";
import { CutSettings } from "./cut-settings.tsx";
import { LayersStep } from "./layers-step.tsx";
import { MovementGroup, USUAL_MOVEMENT } from "./movement.tsx";
import { rollTable } from "./roll-table.ts";

/** Radius of the ring round an island that was given away, mm. */
const GIVEN_MM = 1.4;
const NOTHING_HIDDEN: ReadonlySet<string> = new Set();

const transferIn = ({ made }: Bench["computed"]): Transfer | null => made && transfer.resultIn(made);

const step: StepScreen = {
  id: "make",
  title: transfer.title,
  looks: ["source", "result", "split", "outlines"],
  summarise({ recipe, computed }) {
    if (transfer.settingsIn(recipe).printed.isWanted) return "printed in one piece";
    const layering = transferIn(computed)?.layering;
    const lap = `lap ${transfer.settingsIn(recipe).lapMm} mm`;
    return layering ? `${count(layering.layers.length, "layer")}, ${lap}` : lap;
  },
  useStep(bench) {
    const { computed, showPlace } = bench;
    const { layering = null, printed = null } = transferIn(computed) ?? {};
    const shapes = useShapesResult(bench);
    const [hidden, setHidden] = useState(NOTHING_HIDDEN);
    const [movement, setMovement] = useState(USUAL_MOVEMENT);
    const [isMoving, setMoving] = useState(false);
    const bare = useMemo(
      () => (layering && !printed && isMoving ? drawBareShirt(layering, movement) : null),
      [layering, printed, isMoving, movement],
    );
    const thin = computed.made?.find(({ process }) => process === transfer.id)?.report?.thin ?? null;
    return {
      wishes: { upTo: "make" },
      result: useMemo(
        () => (layering && !printed ? [filmLayer(layering, hidden)] : shapes),
        [layering, printed, hidden, shapes],
      ),
      marks: useMemo(() => {
        if (!layering) return [];
        if (printed) return [cutLineLayer(printed, layering.mmPerPx)];
        return [changedLayer(layering), ...(bare ? [bareLayer(bare)] : [])];
      }, [layering, printed, bare]),
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

/** The line that printed film is cut along, where it lies round the art. */
function cutLineLayer({ cutLine, art }: PrintedFilm, mmPerPx: number): TableLayer {
  const inPx = (mm: number) => mm / mmPerPx;
  const path = new Path2D();
  path.addPath(makePath2D(cutLine, true), new DOMMatrix([inPx(1), 0, 0, inPx(1), -inPx(art.x), -inPx(art.y)]));
  return { kind: "strokes", path, colour: "#d0006f", screenPx: 1.5, isHaloed: true };
}

/** Round what was added to thin strips, and where islands went to the film beside them. */
function changedLayer({ layers, given, mmPerPx }: Layering): TableLayer {
  const path = new Path2D();
  for (const { thickened } of layers) path.addPath(makePath2D(thickened, true));
  const radius = GIVEN_MM / mmPerPx;
  for (const { x, y } of given) {
    path.moveTo(x + radius, y);
    path.arc(x, y, radius, 0, 2 * Math.PI);
  }
  return { kind: "strokes", path, colour: "#d0006f", screenPx: 1.2, isHaloed: true };
}

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
  useOutput({ recipe, computed, isSourceHeld }) {
    const made = transferIn(computed);
    const { isMirrored, sheets: wanted } = transfer.settingsIn(recipe);
    const [chosen, setChosen] = useState<string | null>(null);
    const sheet = made?.sheets.find(({ spotId }) => spotId === chosen) ?? made?.sheets[0] ?? null;
    return {
      isReady: (made?.layering.layers.length ?? 0) > 0,
      settings: <CutSettings sheets={made?.sheets ?? null} shown={sheet?.spotId ?? null} onShow={setChosen} />,
      warningsTitle: "Before you cut",
      table: useMemo(
        () => (made && sheet && wanted.isMade && !isSourceHeld ? rollTable(sheet, made.layering, isMirrored) : null),
        [made, sheet, wanted.isMade, isMirrored, isSourceHeld],
      ),
    };
  },
  summariseOutput(recipe) {
    const { printed, isMirrored } = transfer.settingsIn(recipe);
    if (printed.isWanted) return "a page and its cut line";
    return isMirrored ? "cut files, mirrored" : "cut files, right-reading";
  },
};
