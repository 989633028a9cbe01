// Output: the films, looked at before they are made, and the files themselves, made by the server.
import { isOver, type Run } from "@plain-palette/contract";
import type { FilmSet } from "@plain-palette/core/screens";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, runArchiveUrl, runFileUrl, watchRun } from "../../api/client.ts";
import type { Computed } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField } from "../../parts/fields.tsx";
import { ProblemNote, problemOf } from "../../parts/problem.tsx";
import { setScreens } from "./edit-screens.ts";
import { Fact, Group, Panel } from "./panel.tsx";

/** Sheets of film that shops buy, mm (ISO 216 and common roll cuts). Null: as large as art and marks need. */
const SHEETS = [
  { value: "fit", text: "Fitting", size: null },
  { value: "a4", text: "A4", size: { width: 210, height: 297 } },
  { value: "a3", text: "A3", size: { width: 297, height: 420 } },
  { value: "13x19", text: "13 × 19 in", size: { width: 330.2, height: 482.6 } },
] as const;

interface Props {
  readonly computed: Computed;
  readonly films: FilmSet | null;
  readonly shown: number;
  onShow(index: number): void;
  /** Shows a place of the art on the table, upright pixels. */
  onPlace(place: { readonly x: number; readonly y: number }): void;
}

export function OutputStep({ computed, films, shown, onShow, onPlace }: Props) {
  const wanted = useJob((state) => state.recipe.processes.screens.films);
  const edit = useJob((state) => state.edit);
  const runs = useRuns();
  const set = (part: Partial<typeof wanted>) => edit((r) => setScreens(r, { films: { ...wanted, ...part } }));
  const sheet = SHEETS.find(
    ({ size }) => size?.width === wanted.sheetMm?.width && size?.height === wanted.sheetMm?.height,
  );
  return (
    <Panel step="output" next="proof" isDone={runs.isCurrent}>
      <Group title="Sheet">
        <Choice
          label="Sheet"
          value={sheet?.value ?? "fit"}
          options={SHEETS}
          onChange={(value) => set({ sheetMm: SHEETS.find((s) => s.value === value)?.size ?? null })}
        />
        {films && (
          <p className="mt-1 text-xs text-soft">
            {films.sheet.width.toFixed(1)} × {films.sheet.height.toFixed(1)} mm.
            {films.hasGrown && " The sheet grew so that nothing of the art or its marks is cut off."}
          </p>
        )}
      </Group>
      <Group title="Film">
        <div className="py-1">
          <Choice
            label="Reading"
            value={wanted.isMirrored ? "mirrored" : "right"}
            options={[
              { value: "right", text: "Right-reading" },
              { value: "mirrored", text: "Mirrored" },
            ]}
            onChange={(value) => set({ isMirrored: value === "mirrored" })}
          />
        </div>
        <CheckField
          label="Registration targets and centre marks"
          isOn={wanted.hasMarks}
          onChange={(hasMarks) => set({ hasMarks })}
        />
        <CheckField label="Labels" isOn={wanted.hasLabels} onChange={(hasLabels) => set({ hasLabels })} />
      </Group>
      <Group title="Films">
        {!films && <p role="status">Separating ...</p>}
        {films && films.films.length === 0 && <p>No plates: every colour is dropped or the garment's.</p>}
        <ol aria-label="Films">
          {films?.films.map(({ plate }, i) => (
            <li key={plate.id}>
              <button
                type="button"
                aria-pressed={i === shown}
                onClick={() => onShow(i)}
                className="flex w-full items-center gap-2 border-t border-rule px-1 py-1 text-left hover:bg-card aria-pressed:bg-card aria-pressed:font-semibold"
              >
                <span className="w-5 text-right text-soft">{plate.order}</span>
                <span className="size-3 border border-soft/50" style={{ background: `rgb(${plate.rgb.join(" ")})` }} />
                {plate.name}
              </button>
            </li>
          ))}
        </ol>
      </Group>
      {computed.warnings.length > 0 && (
        <Group title="Before you burn">
          <ul className="grid gap-1.5">
            {computed.warnings.map(({ text, place }) => (
              <li key={text}>
                {place ? (
                  <button
                    type="button"
                    className="text-left underline decoration-rule hover:decoration-ink"
                    title="Show it on the table"
                    onClick={() => onPlace(place)}
                  >
                    {text}
                  </button>
                ) : (
                  text
                )}
              </li>
            ))}
          </ul>
        </Group>
      )}
      <Group title="Files">
        <Button
          look={runs.isCurrent ? "plain" : "next"}
          className="w-full"
          onClick={() => void runs.start()}
          disabled={!films || films.films.length === 0 || runs.isActive}
        >
          Make the files
        </Button>
        {runs.failure !== null && <ProblemNote problem={problemOf(runs.failure)} />}
        {runs.latest && <RunView run={runs.latest} isCurrent={runs.isCurrent} onStop={() => void runs.stop()} />}
      </Group>
    </Panel>
  );
}

/** The job's newest run, watched while it is at work, and the way to start one from the recipe as it is now. */
function useRuns() {
  const job = useJob((state) => state.job);
  const flush = useJob((state) => state.flush);
  const queries = useQueryClient();
  const runs = useQuery({ queryKey: ["runs", job.id], queryFn: () => api.listRuns(job.id) });
  const [failure, setFailure] = useState<unknown>(null);
  const put = useCallback(
    (run: Run) =>
      void queries.setQueryData<Run[]>(["runs", run.jobId], (old = []) => [
        run,
        ...old.filter((other) => other.id !== run.id),
      ]),
    [queries],
  );
  const latest = runs.data?.[0];
  const activeId = latest && !isOver(latest.state) ? latest.id : null;
  useEffect(() => (activeId ? watchRun(activeId, put) : undefined), [activeId, put]);
  return {
    latest,
    failure,
    isActive: activeId !== null,
    /** Whether the newest files are of the recipe in force. */
    isCurrent: latest?.state === "done" && latest.recipeVersion === job.head,
    async start() {
      setFailure(null);
      try {
        put(await api.startRun(job.id, await flush()));
      } catch (error) {
        setFailure(error);
      }
    },
    stop: () => (latest ? api.stopRun(latest.id).then(put) : undefined),
  };
}

function RunView({ run, isCurrent, onStop }: { run: Run; isCurrent: boolean; onStop(): void }) {
  if (!isOver(run.state))
    return (
      <div className="mt-2">
        <div className="flex items-center gap-2">
          <progress className="h-2 flex-1 accent-ink" value={run.progress} max={1} aria-label="Making the files" />
          <Button onClick={onStop}>Stop</Button>
        </div>
        <p role="status" className="text-xs text-soft">
          {run.stage}
        </p>
      </div>
    );
  if (run.state === "failed")
    return <p className="mt-2 text-wrong">The files could not be made: {run.error}. The recipe is kept; try again.</p>;
  if (run.state === "stopped") return <p className="mt-2">Stopped. Nothing was written.</p>;
  return <RunFiles run={run} isCurrent={isCurrent} />;
}

/** What may not stand in a file's name anywhere. */
const NOT_IN_NAMES = /[\\/:*?"<>|\p{Cc}]+/gu;

/** The files of a run, named as the job; brought into view when they are just made. */
function RunFiles({ run, isCurrent }: { run: Run; isCurrent: boolean }) {
  const { number, title } = useJob((state) => state.job);
  const job = `${number} ${title.replace(NOT_IN_NAMES, " ").trim()}`;
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isCurrent) list.current?.scrollIntoView({ block: "nearest" });
  }, [isCurrent]);
  return (
    <div ref={list}>
      <dl className="mt-2" data-testid="run-files">
        {run.files.map((file) => (
          <Fact key={file.name} label={`${Math.ceil(file.bytes / 1000)} kB`}>
            <a href={runFileUrl(run.id, file.name, `${job} ${file.name}`)} download className="underline">
              {file.name}
            </a>
          </Fact>
        ))}
        <Fact label="All of them">
          <a href={runArchiveUrl(run.id, `${job}.zip`)} download className="underline">
            {job}.zip
          </a>
        </Fact>
      </dl>
      <p className="mt-1 text-xs text-soft">
        {isCurrent
          ? "Made from the recipe as it is now."
          : `Made from version ${run.recipeVersion}; the recipe has changed since. Make them again.`}
      </p>
    </div>
  );
}
