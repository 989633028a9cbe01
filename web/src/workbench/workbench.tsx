// The workbench: ticket, light table, and the settings of the current step.
import { JOB_STEPS, type JobStep, jobStepSchema } from "@plain-palette/contract";
import { aboutStep, printWidthMm, type Recipe } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { layOutFilms } from "@plain-palette/core/screens";
import { lazy, Suspense, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { type Computed, useCompute } from "../compute/use-compute.ts";
import { useJob } from "../job/use-job.ts";
import type { TableLayer } from "../light-table/layers.ts";
import { LightTable, type TableControls } from "../light-table/light-table.tsx";
import { type Look, LookBar, type ReadOut } from "../light-table/look-bar.tsx";
import { ArtworkStep } from "./artwork/artwork-step.tsx";
import { actionsOnTable, type ChangeDesk, type Desk, EMPTY_DESK } from "./artwork/desk.ts";
import { useToolInHand } from "./artwork/use-tool-in-hand.ts";
import { ColoursStep } from "./colours/colours-step.tsx";
import { type ChangePaintDesk, EMPTY_PAINT_DESK, type PaintDesk } from "./colours/paint-desk.ts";
import { usePaintTool } from "./colours/use-paint-tool.ts";
import { useShop } from "./colours/use-shop.ts";
import { ConflictNote } from "./conflict.tsx";
import { readPlace } from "./read-place.ts";
import { DistanceLegend } from "./shapes/distance-legend.tsx";
import { shapePicker } from "./shapes/shape-picker.ts";
import { type ChangeShapesDesk, EMPTY_SHAPES_DESK, type ShapesDesk } from "./shapes/shapes-desk.ts";
import { ShapesStep } from "./shapes/shapes-step.tsx";
import { OutputStep } from "./steps/output.tsx";
import { SeparationsStep } from "./steps/separations.tsx";
import { summariseSteps } from "./summaries.ts";
import { drawTrace, filmLayers, layArt, placedTable, placeOnFilm, ringPlaces, triedLayers } from "./table-layers.ts";
import { Ticket } from "./ticket.tsx";
import { useJobPicture } from "./use-job-picture.ts";
import { useKeys } from "./use-keys.ts";

const DifferenceScale = lazy(() => import("../light-table/difference-scale.tsx"));

const BUSY_WORDS = { load: "Fetching the artwork", check: "Measuring", compare: "Comparing" } as const;

/** What is being done, in words. */
function busyWords(busy: NonNullable<Computed["busy"]>): string {
  return busy === "load" || busy === "check" || busy === "compare" ? BUSY_WORDS[busy] : aboutStep(busy).doing;
}

const NO_SPOTS: readonly Spot[] = [];

/** Radius of the ring round a place that a check found, mm. */
const RING_MM = 1.2;

/** Ways to look at each step. */
const LOOKS: Readonly<Record<JobStep, readonly Look[]>> = {
  artwork: ["source", "result", "split", "difference", "placed"],
  colours: ["source", "result", "split", "difference", "outlines"],
  shapes: ["source", "result", "split", "outlines", "distance"],
  separations: ["source", "result", "split", "outlines"],
  output: ["source", "result", "split", "outlines"],
  proof: ["result"],
};

export function Workbench() {
  const step = jobStepSchema.catch("artwork").parse(useParams().step);
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const undo = useJob((state) => state.undo);
  const redo = useJob((state) => state.redo);
  const patch = useJob((state) => state.patch);
  const [wanted, setLook] = useState<Look>("result");
  const look = LOOKS[step].includes(wanted) ? wanted : "result";
  const [fade, setFade] = useState(0);
  const [isSourceHeld, setSourceHeld] = useState(false);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [film, setFilm] = useState(0);
  const [place, setPlace] = useState<{ x: number; y: number } | null>(null);
  const [zoom, setZoom] = useState(0);
  const [desk, setDesk] = useState<Desk>(EMPTY_DESK);
  const change: ChangeDesk = useCallback((part) => setDesk((old) => ({ ...old, ...part })), []);
  const [paintDesk, setPaintDesk] = useState<PaintDesk>(EMPTY_PAINT_DESK);
  const changePaint: ChangePaintDesk = useCallback((part) => setPaintDesk((old) => ({ ...old, ...part })), []);
  const [shapesDesk, setShapesDesk] = useState<ShapesDesk>(EMPTY_SHAPES_DESK);
  const changeShapes: ChangeShapesDesk = useCallback((part) => setShapesDesk((old) => ({ ...old, ...part })), []);
  /** A place that a warning names, upright pixels. */
  const [warned, setWarned] = useState<{ readonly x: number; readonly y: number } | null>(null);
  const [underFade, setUnderFade] = useState(0.25);
  const table = useRef<TableControls>(null);
  useKeys(
    useCallback(() => void undo(), [undo]),
    useCallback(() => void redo(), [redo]),
    setSourceHeld,
  );
  // What is in hand belongs to the step it was taken up in.
  useEffect(() => {
    if (step !== "artwork") setDesk(EMPTY_DESK);
    if (step !== "colours") setPaintDesk(EMPTY_PAINT_DESK);
    if (step !== "shapes") setShapesDesk(EMPTY_SHAPES_DESK);
    setWarned(null);
  }, [step]);
  // The board shows how far a job has come.
  const hasComeFurther = JOB_STEPS.indexOf(step) > JOB_STEPS.indexOf(job.step);
  useEffect(() => {
    if (hasComeFurther) void patch({ step });
  }, [hasComeFurther, step, patch]);
  useEffect(() => {
    document.title = `${job.number} ${job.title} · Plain Palette`;
  }, [job.number, job.title]);

  const { settings } = useShop();
  const { thinnestLineMm: lineMm, thinnestGapMm: gapMm } = settings;
  const thinLimits = useMemo(() => ({ lineMm, gapMm }), [lineMm, gapMm]);
  const isArtwork = step === "artwork";
  const recipeOnTable = useRecipeOnTable(recipe, isArtwork ? desk : EMPTY_DESK);
  const needsPlates = step === "separations" || step === "output";
  const { computed, ask } = useCompute(job.artwork, recipeOnTable, {
    upTo: isArtwork ? "prepare" : needsPlates ? "separate" : "simplify",
    focusId: isArtwork ? desk.focusId : null,
    compare: look === "difference" ? (isArtwork ? "prepared" : "reduced") : null,
    checkThin: step === "output" || (step === "colours" && paintDesk.section === "checks") ? thinLimits : null,
    measure: step === "shapes",
    trying: shapesDesk.trying,
  });
  const { prepared, traced, separation, reduced } = computed;
  useJobPicture(computed);
  const size = prepared?.frame ?? job.artwork;
  const widthMm = printWidthMm(recipe, size);
  const mmPerPx = widthMm / size.width;
  const artworkTool = useToolInHand({ desk, change, prepared, mmPerPx });
  const paintTool = usePaintTool({
    desk: paintDesk,
    change: changePaint,
    prepared,
    spots: reduced?.spots ?? NO_SPOTS,
    pointer: place,
    ask,
  });
  const picker = shapePicker(shapesDesk, changeShapes, prepared);
  const inHand = isArtwork ? artworkTool : step === "colours" ? paintTool : step === "shapes" ? picker : null;

  const trace = useMemo(() => traced && drawTrace(traced), [traced]);
  const films = useMemo(
    () =>
      separation &&
      layOutFilms(separation, recipe.processes.screens.films, {
        job: `${job.number} ${job.title}`,
        client: job.client || "no client given",
        date: new Date().toISOString().slice(0, 10),
      }),
    [separation, recipe.processes.screens.films, job.number, job.title, job.client],
  );
  const filmShown = Math.min(film, Math.max(0, (films?.films.length ?? 1) - 1));
  const isFilm = step === "output" && films !== null && films.films.length > 0 && !isSourceHeld;
  const film3 = useMemo(() => (isFilm && films ? filmLayers(films, filmShown) : []), [isFilm, films, filmShown]);
  const shownLook = isSourceHeld ? "source" : look;
  const { layers, splitLayers } = useMemo(
    () =>
      layArt({
        step,
        look: shownLook,
        fade,
        underFade,
        computed,
        trace,
        hidden,
        size,
        garment: recipe.artwork.garment,
      }),
    [step, shownLook, fade, underFade, computed, trace, hidden, size, recipe.artwork.garment],
  );
  const isPlaced = shownLook === "placed";
  const placed = useMemo(
    () => (isPlaced && prepared ? placedTable(prepared, recipe.artwork, mmPerPx) : null),
    [isPlaced, prepared, recipe.artwork, mmPerPx],
  );
  const tried = traced?.tried;
  const triedLines = useMemo(() => (tried && shownLook !== "source" ? triedLayers(tried) : []), [tried, shownLook]);
  const readOut: ReadOut | null = useMemo(
    () =>
      place && !isFilm ? readPlace(place, size, mmPerPx, prepared?.upright ?? null, trace, reduced?.spots ?? []) : null,
    [place, isFilm, size, mmPerPx, prepared, trace, reduced],
  );
  const isWorking = inHand !== null && (shownLook === "result" || shownLook === "split" || shownLook === "outlines");
  const isChecking = step === "colours" && paintDesk.section === "checks" && computed.checks !== null;
  const isUnder = look === "outlines" || look === "distance";
  const warnedHere = warned && isFilm && films ? placeOnFilm(films, warned) : warned;
  const showWarned = (at: { readonly x: number; readonly y: number }) => {
    setWarned(at);
    const { x, y } = isFilm && films ? placeOnFilm(films, at) : at;
    table.current?.showPlace(x, y);
  };
  const warnedRing = warnedHere ? [ringPlaces([warnedHere], isFilm ? RING_MM : RING_MM / mmPerPx)] : [];
  const overlays: TableLayer[] = [
    ...warnedRing,
    ...(isWorking ? inHand.overlays : []),
    ...(isChecking && computed.checks ? [ringPlaces(computed.checks.thin, RING_MM / mmPerPx)] : []),
  ];
  return (
    <div className="flex h-full">
      <Ticket current={step} summaries={summariseSteps(size, recipe, computed)} />
      <main className="flex min-w-0 flex-1 flex-col">
        <ConflictNote />
        <div className="relative flex min-h-0 flex-1 flex-col">
          <LightTable
            // Films are laid out in millimetres, art in pixels: each has a view of its own.
            key={isFilm ? "film" : placed ? "placed" : "art"}
            width={isFilm && films ? films.sheet.width : (placed?.width ?? size.width)}
            height={isFilm && films ? films.sheet.height : (placed?.height ?? size.height)}
            mmPerUnit={isFilm ? 1 : mmPerPx}
            layers={isFilm ? film3 : (placed?.layers ?? [...layers, ...triedLines])}
            overlays={placed ? undefined : isFilm ? warnedRing : overlays}
            splitLayers={isFilm ? undefined : splitLayers}
            tool={isWorking ? inHand?.tool : null}
            controls={table}
            onPointer={setPlace}
            onZoom={setZoom}
          />
          <BusyNote computed={computed} />
          {isWorking && inHand?.tool.refusal && (
            <p role="status" className="absolute bottom-3 left-3 border border-rule bg-sheet/95 px-2.5 py-1 text-xs">
              {inHand.tool.refusal}
            </p>
          )}
          {shownLook === "difference" && computed.difference && (
            <div className="absolute bottom-3 left-3 border border-rule bg-sheet/95">
              <Suspense fallback={null}>
                <DifferenceScale counts={computed.difference.counts} />
              </Suspense>
            </div>
          )}
          {shownLook === "distance" && traced?.deviation && (
            <div className="absolute bottom-3 left-3 border border-rule bg-sheet/95">
              <DistanceLegend mmPerPx={mmPerPx} />
            </div>
          )}
        </div>
        <LookBar
          look={look}
          looks={LOOKS[step]}
          caption={
            isFilm && films
              ? `Film ${filmShown + 1} of ${films.films.length}: ${films.films[filmShown].plate.name}`
              : null
          }
          onLook={setLook}
          fade={isFilm ? null : isUnder ? underFade : look === "result" && step !== "separations" ? fade : null}
          onFade={isUnder ? setUnderFade : setFade}
          difference={computed.difference}
          zoomText={`${Math.round((zoom * 25.4 * 100) / 96)} %`}
          table={table}
          readOut={placed ? null : readOut}
          hint={isWorking ? (inHand?.tool.hint ?? null) : null}
        />
      </main>
      {isArtwork && <ArtworkStep computed={computed} ask={ask} desk={desk} change={change} mmPerPx={mmPerPx} />}
      {step === "colours" && <ColoursStep computed={computed} desk={paintDesk} change={changePaint} table={table} />}
      {step === "shapes" && (
        <ShapesStep
          computed={computed}
          ask={ask}
          mmPerPx={mmPerPx}
          desk={shapesDesk}
          change={changeShapes}
          table={table}
        />
      )}
      {step === "separations" && (
        <SeparationsStep computed={computed} choice={{ hidden, setHidden }} onPlace={showWarned} />
      )}
      {step === "output" && (
        <OutputStep computed={computed} films={films} shown={filmShown} onShow={setFilm} onPlace={showWarned} />
      )}
    </div>
  );
}

/** The recipe with what is only tried, or without what is being edited. The same object while nothing of that is so. */
function useRecipeOnTable(recipe: Recipe, desk: Desk): Recipe {
  const { tool, draft } = desk;
  return useMemo(() => {
    const actions = actionsOnTable(recipe.artwork.actions, { ...EMPTY_DESK, tool, draft });
    return actions === recipe.artwork.actions
      ? recipe
      : { ...recipe, artwork: { ...recipe.artwork, actions: [...actions] } };
  }, [recipe, tool, draft]);
}

function BusyNote({ computed }: { computed: Computed }) {
  if (computed.failure)
    return (
      <p role="alert" className="absolute inset-x-0 top-0 border-l-4 border-wrong bg-card px-4 py-2">
        This could not be computed: {computed.failure} The recipe is kept.
      </p>
    );
  if (!computed.busy) return null;
  return (
    <p
      role="status"
      data-testid="busy"
      className="busy-note absolute left-3 top-3 border border-rule bg-sheet/95 px-2.5 py-1 text-xs"
    >
      {busyWords(computed.busy)} ...
    </p>
  );
}
