// One step on the bench: the light table with what the step shows, the bar under it, and the step's panel.

import type { Point } from "@plain-palette/core/raster";
import { lazy, type ReactNode, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { useCompute, useWishes } from "../compute/use-compute.ts";
import { say } from "../frame/say.tsx";
import type { TableLayer } from "../light-table/layers.ts";
import { LightTable } from "../light-table/light-table.tsx";
import { type Look, LookBar, sayReadOut } from "../light-table/look-bar.tsx";
import type { TableMemory } from "../light-table/table-memory.ts";
import type { LookState, useBench } from "./bench.ts";
import { BusyNote } from "./busy-note.tsx";
import { ConflictNote } from "./conflict.tsx";
import { FoldButton, useFoldsHere } from "./folds.tsx";
import { layArt, ON_PAPER, ringPlaces } from "./looks.ts";
import { readPlace } from "./read-place.ts";
import type { Bench, OwnTable, StepScreen } from "./screen.ts";

const DifferenceScale = lazy(() => import("../light-table/difference-scale.tsx"));

/** Looks in which a tool works. */
const WORKING: ReadonlySet<Look> = new Set(["result", "split", "outlines"]);
const NOTHING: readonly TableLayer[] = [];

interface Props {
  readonly step: StepScreen;
  readonly bench: ReturnType<typeof useBench>;
  readonly looks: LookState;
  readonly memory: TableMemory;
  readonly isSourceHeld: boolean;
}

export function StepBench({ step, bench: shared, looks, memory, isSourceHeld }: Props) {
  const chosen = step.looks.includes(looks.wanted) ? looks.wanted : "result";
  const look = isSourceHeld ? "source" : chosen;
  /** A place that a person wants to see, upright pixels. */
  const [place, setPlace] = useState<Point | null>(null);
  const shownTable = useRef<OwnTable | null>(null);
  const { table } = shared;
  const showPlace = (at: Point) => {
    setPlace(at);
    const { x, y } = placeOn(shownTable.current, at);
    table.current?.showPlace(x, y);
  };
  const bench: Bench = { ...shared, look, isSourceHeld, showPlace };
  const view = step.useStep(bench);
  const { job, recipe, computed, size, mmPerPx, trace, pointer } = bench;
  const { isOpen } = useFoldsHere();
  useWishes(useCompute(), job.artwork, view.recipe ?? recipe, view.wishes);
  const own = view.table ?? null;
  useEffect(() => {
    shownTable.current = own;
  }, [own]);
  const [zoom, setZoom] = useState(0);
  const { over, under } = looks;
  const { result, looked } = view;
  const { garment } = recipe.artwork;
  const { prepared, reduced, difference } = computed;
  const upright = prepared?.upright ?? computed.source;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the bench has of it is named
  const { layers, splitLayers } = useMemo(
    () => layArt(bench, look, view, { over, under }),
    [look, result, looked, upright, difference, trace, size, garment, over, under],
  );
  const readOut = useMemo(
    () =>
      pointer && !own
        ? readPlace(pointer, size, mmPerPx, prepared?.upright ?? null, trace, reduced?.spots ?? [])
        : null,
    [pointer, own, size, mmPerPx, prepared, trace, reduced],
  );
  const tool = view.tool && !own && WORKING.has(look) ? view.tool : null;
  // The same lists as long as the same lies on the table: it is not drawn again for a word beside it.
  const marks = look === "source" ? NOTHING : (view.marks ?? NOTHING);
  const lying = useMemo(() => [...layers, ...marks], [layers, marks]);
  const at = place && placeOn(own, place);
  const mmPerUnit = own?.mmPerUnit ?? mmPerPx;
  const ringed = own && !own.placeOf ? null : at;
  const held = (!own && tool?.overlays) || NOTHING;
  // biome-ignore lint/correctness/useExhaustiveDependencies: a place is its numbers
  const overlays = useMemo(
    () => [...(ringed ? [ringPlaces([ringed], mmPerUnit)] : []), ...held],
    [ringed?.x, ringed?.y, mmPerUnit, held],
  );
  const isUnder = ON_PAPER.has(chosen);
  return (
    <main id="work" tabIndex={-1} className="flex min-h-0 min-w-0 flex-1 narrow:flex-col">
      <div className="flex min-w-0 flex-1 flex-col narrow:h-[max(18rem,85vh)] narrow:flex-none">
        <ConflictNote />
        <div className="relative flex min-h-0 flex-1 flex-col">
          <LightTable
            // Films are laid out in millimetres, art in pixels: each has a view of its own.
            key={own?.name ?? "art"}
            name={own?.name ?? "art"}
            memory={memory}
            width={own?.width ?? size.width}
            height={own?.height ?? size.height}
            mmPerUnit={mmPerUnit}
            layers={own?.layers ?? lying}
            overlays={overlays}
            moving={own ? null : view.moving}
            splitLayers={own ? undefined : splitLayers}
            tool={tool?.tool}
            controls={table}
            onPointer={shared.setPointer}
            onRest={() => readOut && say(sayReadOut(readOut))}
            onZoom={setZoom}
          />
          <BusyNote />
          {tool?.tool.refusal && (
            <p role="status" className="absolute bottom-3 left-3 border border-rule bg-sheet/95 px-2.5 py-1 text-xs">
              {tool.tool.refusal}
            </p>
          )}
          {look === "difference" && computed.difference && (
            <Legend>
              <Suspense fallback={null}>
                <DifferenceScale counts={computed.difference.counts} />
              </Suspense>
            </Legend>
          )}
          {view.legend && <Legend>{view.legend}</Legend>}
        </div>
        <LookBar
          look={chosen}
          looks={step.looks}
          caption={own?.caption ?? null}
          onLook={looks.setLook}
          fade={own?.caption ? null : isUnder ? under : chosen === "result" && view.canFade !== false ? over : null}
          onFade={isUnder ? looks.setUnder : looks.setOver}
          difference={computed.difference}
          zoomText={`${Math.round((zoom * 25.4 * 100) / 96)} %`}
          table={table}
          readOut={readOut}
          hint={tool?.tool.hint ?? null}
        >
          {!isOpen.settings && (
            <FoldButton what="settings" opens>
              Settings
            </FoldButton>
          )}
        </LookBar>
      </div>
      {view.panel}
    </main>
  );
}

/** Where a place of the art lies on what is on the table. */
function placeOn(own: OwnTable | null, place: Point): Point {
  return own?.placeOf?.(place) ?? place;
}

function Legend({ children }: { children: ReactNode }) {
  return <div className="absolute bottom-3 left-3 border border-rule bg-sheet/95">{children}</div>;
}
