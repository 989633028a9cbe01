// The workbench: ticket, light table, and the settings of the current step.
import { JOB_STEPS, type JobStep, jobStepSchema } from "@plain-palette/contract";
import { layOutFilms } from "@plain-palette/core/films";
import { formatLength, toMm } from "@plain-palette/core/geometry";
import { effectiveDpi, printWidthMm } from "@plain-palette/core/recipe";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { type Computed, useCompute } from "../compute/use-compute.ts";
import { JobContext, useJob, useJobStore } from "../job/use-job.ts";
import { LightTable, type TableControls } from "../light-table/light-table.tsx";
import { type Look, LookBar, type ReadOut } from "../light-table/look-bar.tsx";
import { ConflictNote } from "./conflict.tsx";
import { readPlace } from "./read-place.ts";
import { ArtworkStep } from "./steps/artwork.tsx";
import { ColoursStep } from "./steps/colours.tsx";
import { OutputStep } from "./steps/output.tsx";
import { SeparationsStep } from "./steps/separations.tsx";
import { ShapesStep } from "./steps/shapes.tsx";
import { drawTrace, filmLayers, garmentSheet, outlineLayers, plateLayers, resultLayers } from "./table-layers.ts";
import { Ticket } from "./ticket.tsx";
import { useKeys } from "./use-keys.ts";

export function Workbench() {
  const params = useParams();
  const store = useJobStore(params.id ?? "");
  const step = jobStepSchema.catch("artwork").parse(params.step);
  if (!store)
    return (
      <p role="status" className="p-8">
        Fetching the job ...
      </p>
    );
  return (
    <JobContext value={store}>
      <Bench step={step} />
    </JobContext>
  );
}

const BUSY_WORDS = {
  load: "Fetching the artwork",
  find: "Finding colours",
  reduce: "Reducing",
  trace: "Tracing",
  separate: "Separating",
} as const;

function Bench({ step }: { step: JobStep }) {
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const undo = useJob((state) => state.undo);
  const redo = useJob((state) => state.redo);
  const patch = useJob((state) => state.patch);
  const needsPlates = step === "separations" || step === "output";
  const computed = useCompute(job.artwork, recipe, needsPlates ? "separate" : "trace");
  const [look, setLook] = useState<Look>("result");
  const [isSourceHeld, setSourceHeld] = useState(false);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const [film, setFilm] = useState(0);
  const [place, setPlace] = useState<{ x: number; y: number } | null>(null);
  const [zoom, setZoom] = useState(0);
  const table = useRef<TableControls>(null);
  useKeys(
    useCallback(() => void undo(), [undo]),
    useCallback(() => void redo(), [redo]),
    setSourceHeld,
  );

  // The board shows how far a job has come.
  const hasComeFurther = JOB_STEPS.indexOf(step) > JOB_STEPS.indexOf(job.step);
  useEffect(() => {
    if (hasComeFurther) void patch({ step });
  }, [hasComeFurther, step, patch]);
  useEffect(() => {
    document.title = `${job.number} ${job.title} · Plain Palette`;
  }, [job.number, job.title]);

  const { bitmap, reduced, traced, separation } = computed;
  const trace = useMemo(() => traced && drawTrace(traced), [traced]);
  const films = useMemo(
    () =>
      separation &&
      layOutFilms(separation, recipe.output, {
        job: `${job.number} ${job.title}`,
        client: job.client || "no client given",
        date: new Date().toISOString().slice(0, 10),
      }),
    [separation, recipe.output, job.number, job.title, job.client],
  );
  const filmShown = Math.min(film, Math.max(0, (films?.films.length ?? 1) - 1));
  const isFilm = step === "output" && films !== null && films.films.length > 0 && !isSourceHeld;
  const { garment } = recipe.artwork;
  const size = useMemo(
    () => ({ width: job.artwork.width, height: job.artwork.height }),
    [job.artwork.width, job.artwork.height],
  );

  const source = useMemo(
    () => [garmentSheet(size, garment), ...(bitmap ? [{ kind: "bitmap" as const, bitmap, opacity: 1 }] : [])],
    [size, garment, bitmap],
  );
  const result = useMemo(() => {
    const sheet = garmentSheet(size, garment);
    if (step === "separations" && separation) return [sheet, ...plateLayers(separation, hidden)];
    if (trace && reduced) return [sheet, ...resultLayers(trace, reduced.spots, garment)];
    return source;
  }, [size, garment, step, separation, hidden, trace, reduced, source]);
  const outlines = useMemo(
    () => (trace ? [{ ...garmentSheet(size, "#ffffff") }, ...outlineLayers(trace, bitmap)] : source),
    [trace, size, bitmap, source],
  );
  const film3 = useMemo(() => (isFilm && films ? filmLayers(films, filmShown) : []), [isFilm, films, filmShown]);

  const shownLook = isSourceHeld ? "source" : look;
  const layers = isFilm ? film3 : shownLook === "source" ? source : shownLook === "outlines" ? outlines : result;
  const mmPerPx = printWidthMm(recipe) / job.artwork.width;
  const readOut: ReadOut | null = useMemo(
    () => (place && !isFilm ? readPlace(place, size, mmPerPx, bitmap, trace, reduced?.spots ?? []) : null),
    [place, isFilm, size, mmPerPx, bitmap, trace, reduced],
  );
  return (
    <div className="flex h-full">
      <Ticket current={step} summaries={summarise(job.artwork, recipe, computed)} />
      <main className="flex min-w-0 flex-1 flex-col">
        <ConflictNote />
        <div className="relative flex min-h-0 flex-1 flex-col">
          <LightTable
            // Films are laid out in millimetres, art in pixels: each has a view of its own.
            key={isFilm ? "film" : "art"}
            width={isFilm && films ? films.sheet.width : size.width}
            height={isFilm && films ? films.sheet.height : size.height}
            mmPerUnit={isFilm ? 1 : mmPerPx}
            layers={layers}
            splitLayers={shownLook === "split" && !isFilm ? source : undefined}
            controls={table}
            onPointer={setPlace}
            onZoom={setZoom}
          />
          <BusyNote computed={computed} />
        </div>
        <LookBar
          look={look}
          caption={
            isFilm && films
              ? `Film ${filmShown + 1} of ${films.films.length}: ${films.films[filmShown].plate.name}`
              : null
          }
          onLook={setLook}
          zoomText={`${Math.round((zoom * 25.4 * 100) / 96)} %`}
          table={table}
          readOut={readOut}
        />
      </main>
      {step === "artwork" && <ArtworkStep />}
      {step === "colours" && <ColoursStep computed={computed} />}
      {step === "shapes" && <ShapesStep computed={computed} />}
      {step === "separations" && <SeparationsStep computed={computed} choice={{ hidden, setHidden }} />}
      {step === "output" && <OutputStep computed={computed} films={films} shown={filmShown} onShow={setFilm} />}
    </div>
  );
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
      className="absolute left-3 top-3 border border-rule bg-sheet/95 px-2.5 py-1 text-xs"
    >
      {BUSY_WORDS[computed.busy]} ...
    </p>
  );
}

function summarise(
  artwork: { width: number; height: number },
  recipe: Parameters<typeof printWidthMm>[0],
  { reduced, traced, separation }: Computed,
): Record<JobStep, string> {
  const { width } = recipe.artwork;
  const inks = reduced?.spots.filter((spot) => spot.role === "ink").length;
  return {
    artwork: `${formatLength(toMm(width), width.unit)} wide, ${Math.round(effectiveDpi(artwork.width, toMm(width)))} dpi`,
    colours: reduced ? `${reduced.spots.length} colours, ${inks} inks` : "not looked at yet",
    shapes: traced ? `${traced.counts.shapes} shapes, ${traced.counts.nodes} nodes` : "not traced yet",
    separations: separation
      ? `${separation.plates.length} plates, trap ${recipe.separations.trapMm} mm`
      : `trap ${recipe.separations.trapMm} mm`,
    output: recipe.output.isMirrored ? "films, mirrored" : "films, right-reading",
    proof: "to look at and show",
  };
}
