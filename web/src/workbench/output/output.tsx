// Output: what will come out, looked at before it is made, and the files themselves, made by the server.
import { isOver, type Run } from "@plain-palette/contract";
import type { Warning } from "@plain-palette/core/checks";
import type { Point } from "@plain-palette/core/raster";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { untilTaken } from "../../api/again.ts";
import { api, runArchiveUrl, runFileUrl, watchRun } from "../../api/client.ts";
import type { RequestProblem } from "../../api/requests.ts";
import { say } from "../../frame/say.tsx";
import { sayState } from "../../job/states.ts";
import { useJob } from "../../job/use-job.ts";
import { AgainLine } from "../../parts/again-line.tsx";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { ProblemNote, problemOf } from "../../parts/problem.tsx";
import { Fact, Group, Panel } from "../panel.tsx";
import type { OutputPart } from "../screen.ts";
import { WarningList } from "../warning-list.tsx";

interface Props {
  readonly warnings: readonly Warning[];
  readonly part: OutputPart;
  /** The processes that the job is made with, if there are several; their files are made all at once. */
  readonly ways: readonly { readonly value: string; readonly text: string }[] | null;
  readonly shown: string;
  onShow(process: string): void;
  /** Shows a place of the art on the table, upright pixels. */
  onPlace(place: Point): void;
}

export function OutputStep({ warnings, part, ways, shown, onShow, onPlace }: Props) {
  const runs = useRuns();
  return (
    <Panel isDone={runs.isCurrent} act={<MakeFiles runs={runs} isReady={part.isReady} />}>
      {ways && (
        <Group title="Made with">
          <Choice label="Made with" value={shown} options={ways} onChange={onShow} />
        </Group>
      )}
      {part.settings}
      {warnings.length > 0 && (
        <Group title={part.warningsTitle}>
          <WarningList warnings={warnings} onPlace={onPlace} />
        </Group>
      )}
      <Group title="Files">
        <YesNote />
        {runs.latest && isOver(runs.latest.state) ? (
          <RunEnd run={runs.latest} isCurrent={runs.isCurrent} />
        ) : (
          <p className="text-soft">None yet.</p>
        )}
      </Group>
    </Panel>
  );
}

/** Orders the files, and says how far they are. */
function MakeFiles({ runs, isReady }: { runs: ReturnType<typeof useRuns>; isReady: boolean }) {
  const { latest, waitsFor, failure, isActive, isCurrent, isOrdering } = runs;
  return (
    <div>
      <Button
        look={isCurrent ? "plain" : "next"}
        className="w-full py-1.5"
        onClick={() => void runs.start()}
        disabled={!isReady || isActive || isOrdering}
      >
        Make the files
      </Button>
      {isOrdering && !waitsFor && (
        <div className="mt-2 flex items-center gap-2">
          <p role="status" className="flex-1 text-xs text-soft">
            The last change is saved first ...
          </p>
          <Button onClick={runs.cancelOrder}>Stop</Button>
        </div>
      )}
      {waitsFor && (
        <ProblemNote problem={waitsFor.problem}>
          <AgainLine className="mt-1" />
        </ProblemNote>
      )}
      {failure !== null && <ProblemNote problem={problemOf(failure)} />}
      {latest && isActive && (
        <div className="mt-2">
          <div className="flex items-center gap-2">
            <progress className="h-2 flex-1 accent-ink" value={latest.progress} max={1} aria-label="Making the files" />
            <Button onClick={() => void runs.stop()}>Stop</Button>
          </div>
          <p role="status" className="text-xs text-soft">
            {latest.stage}
          </p>
        </div>
      )}
    </div>
  );
}

/** Before anything is burned, cut or sewn: whether the client has said yes to this. */
function YesNote() {
  const job = useJob((state) => state.job);
  if (job.state === "changed")
    return (
      <p role="note" className="mb-2 border-l-4 border-wrong bg-card px-3 py-1.5">
        {sayState(job)}.{" "}
        <Link to={`/jobs/${job.id}/proof`} className="underline">
          See the changes, or send a new proof
        </Link>
      </p>
    );
  if (job.state !== "waits" && job.state !== "answered") return null;
  return (
    <p role="note" className="mb-2 text-xs text-soft">
      {job.state === "waits" ? "The client has not said yes yet." : "The client waits for your word."}{" "}
      <Link to={`/jobs/${job.id}/proof`} className="underline">
        The proof
      </Link>
    </p>
  );
}

/** The job's newest run, watched while it is at work, and the way to start one from the recipe as it is now. */
function useRuns() {
  const job = useJob((state) => state.job);
  const flush = useJob((state) => state.flush);
  const queries = useQueryClient();
  const runs = useQuery({ queryKey: ["runs", job.id], queryFn: () => api.listRuns(job.id) });
  const [failure, setFailure] = useState<unknown>(null);
  /** Why the order of files did not reach the server yet. */
  const [waitsFor, setWaitsFor] = useState<RequestProblem | null>(null);
  const [isOrdering, setOrdering] = useState(false);
  const order = useRef<AbortController | null>(null);
  useEffect(() => () => order.current?.abort(), []);
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
  useSaidWhenOver(latest);
  return {
    latest,
    failure,
    isActive: activeId !== null,
    /** Whether the newest files are of the recipe in force. */
    isCurrent: latest?.state === "done" && latest.recipeVersion === job.head,
    waitsFor,
    isOrdering,
    cancelOrder: () => order.current?.abort(),
    async start() {
      setFailure(null);
      setOrdering(true);
      order.current = new AbortController();
      const { signal } = order.current;
      const send = async () => {
        const version = await Promise.race([flush(), untilAborted(signal)]);
        return api.startRun(job.id, version);
      };
      try {
        put(await untilTaken(send, setWaitsFor, signal));
      } catch (error) {
        if (!signal.aborted) setFailure(error);
      } finally {
        setWaitsFor(null);
        setOrdering(false);
      }
    },
    stop: () => (latest ? api.stopRun(latest.id).then(put) : undefined),
  };
}

function untilAborted(signal: AbortSignal): Promise<never> {
  return new Promise((_, reject) => signal.addEventListener("abort", () => reject(signal.reason)));
}

/** Whoever does not see it hears when the files are there. */
function useSaidWhenOver(latest: Run | undefined): void {
  const wasActive = useRef(false);
  const isActive = latest !== undefined && !isOver(latest.state);
  const isMade = latest?.state === "done";
  useEffect(() => {
    if (wasActive.current && !isActive) say(isMade ? "The files are made." : "The files are not made.");
    wasActive.current = isActive;
  }, [isActive, isMade]);
}

/** What came of a run. */
function RunEnd({ run, isCurrent }: { run: Run; isCurrent: boolean }) {
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
