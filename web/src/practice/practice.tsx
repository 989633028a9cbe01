// The practice bench: simulated machines that get a job's files, and nothing else, and show what comes of them.
import type { BoardSearch, JobCard } from "@plain-palette/contract";
import { type CutJob, cutJob, findFaults, readPlot, USUAL_CUTTER } from "@plain-palette/core/practice";
import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useMemo, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { api } from "../api/client.ts";
import { Choice } from "../parts/choice.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { SearchField } from "../parts/search-field.tsx";
import { SelectField } from "../parts/select-field.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { CutterView } from "./cutter-view.tsx";
import { EmbroideryBench } from "./embroidery-bench.tsx";
import { Mailbox } from "./mailbox.tsx";
import { type Plan, readPlan } from "./plan-masks.ts";
import { PressView } from "./press-view.tsx";
import { StoneBench } from "./stone-bench.tsx";
import { type JobFiles, useJobFiles } from "./use-job-files.ts";

export function Practice() {
  const [params, setParams] = useSearchParams();
  const [words, setWords] = useState("");
  const isMail = params.get("at") === "mail";
  const { jobs, job, problem } = useJobOnBench(useDeferredValue(words), params.get("job"));
  const files = useJobFiles(job);
  return (
    <div className="min-h-full">
      <ShopHead title="Practice bench" />
      <main id="work" tabIndex={-1} className="mx-auto max-w-6xl px-8 narrow:px-4 py-5">
        <div className="pb-4">
          <Choice
            label="At the bench"
            value={isMail ? "mail" : "machines"}
            options={[
              { value: "machines", text: "Machines" },
              { value: "mail", text: "The client's mailbox" },
            ]}
            onChange={(value: string) => setParams(value === "mail" ? { at: "mail" } : {})}
          />
        </div>
        {isMail && <Mailbox />}
        {!isMail && <QueryProblem query={problem} />}
        {!isMail && <QueryProblem query={files} />}
        {!isMail && (
          <div className="flex items-center gap-3 pb-2">
            <SearchField label="Search jobs" placeholder="Number, title, client" value={words} onChange={setWords} />
            {jobs?.length === 0 && <p role="status">No job has "{words}" in it.</p>}
          </div>
        )}
        {!isMail && job && (
          <div className="w-96 max-w-full">
            <SelectField
              label="Files of job"
              isWide
              value={job.id}
              options={(jobs ?? []).map(({ id, number, title }) => ({ value: id, text: `${number} ${title}` }))}
              onChange={(id) => setParams({ job: id })}
            />
          </div>
        )}
        {!isMail && (!jobs || files.isLoading) && <p role="status">Fetching the files ...</p>}
        {!isMail && job && files.data !== undefined && <Machines job={job} files={files.data} />}
      </main>
    </div>
  );
}

/** Jobs that can be chosen, the newest of those that are looked for, and the one whose files are on the bench. */
function useJobOnBench(words: string, wanted: string | null) {
  const search: BoardSearch = { words };
  const board = useQuery({ queryKey: ["jobs", "board", search], queryFn: () => api.searchBoard(search) });
  const { data } = board;
  const listed = data?.jobs.find(({ id }) => id === wanted);
  const isElsewhere = wanted !== null && words === "" && data !== undefined && !listed;
  const found = useQuery({
    queryKey: ["jobs", "one", wanted],
    queryFn: () => api.findJob(wanted ?? ""),
    enabled: isElsewhere,
  });
  const other = isElsewhere ? found.data : undefined;
  const jobs = other ? [other, ...(data?.jobs ?? [])] : data?.jobs;
  return { jobs, job: listed ?? other ?? data?.jobs[0] ?? null, problem: board };
}

const MACHINES = {
  stitches: "Embroidery machine",
  stones: "Stone setter",
  film: "Cutter and press",
} as const;
type Machine = keyof typeof MACHINES;

function Machines({ job, files }: { job: JobCard; files: JobFiles | null }) {
  const [wanted, setWanted] = useState<Machine | null>(null);
  const has: Readonly<Record<Machine, boolean>> = {
    stitches: files?.stitchList != null,
    stones: files?.stoneList != null,
    film: (files?.plots.size ?? 0) > 0,
  };
  const there = (Object.keys(MACHINES) as Machine[]).filter((machine) => has[machine]);
  const machine = wanted && has[wanted] ? wanted : (there[0] ?? null);
  if (!files || machine === null)
    return (
      <p className="mt-4 border border-dashed border-soft/60 bg-sheet p-8 text-center">
        {files
          ? "This job's newest files have no plots to cut, no stitches and no stones."
          : "No files were made of this job yet."}{" "}
        Make it with stitches, with stones, or with transfer film and HPGL chosen, and make the files at{" "}
        <Link className="underline" to={`/jobs/${job.id}/output`}>
          its Output step
        </Link>
        .
      </p>
    );
  const { run, stitchList, stoneList, shapesSvg, templates } = files;
  return (
    <>
      {there.length > 1 && (
        <div className="mt-2">
          <Choice<Machine>
            label="Machine"
            value={machine}
            options={there.map((value) => ({ value, text: MACHINES[value] }))}
            onChange={setWanted}
          />
        </div>
      )}
      {machine === "stitches" && (
        <EmbroideryBench key={run.id} text={stitchList ?? ""} shapesSvg={shapesSvg} garment={job.garment} />
      )}
      {machine === "stones" && (
        <StoneBench key={run.id} list={stoneList ?? ""} templates={templates} garment={job.garment} />
      )}
      {machine === "film" && <TransferBench key={run.id} files={files} garment={job.garment} />}
    </>
  );
}

function TransferBench({ files, garment }: { files: JobFiles; garment: string }) {
  const names = [...files.plots.keys()];
  const [name, setName] = useState(names[0] ?? "");
  const plan = useMemo(() => (files.layersSvg ? readPlan(files.layersSvg) : null), [files]);
  const job = useMemo(
    (): CutJob | null => (plan ? cutJob(files.plots, plan.layers, USUAL_CUTTER) : null),
    [files, plan],
  );
  const plot = useMemo(() => readPlot(files.plots.get(name) ?? ""), [files, name]);
  const sheet = sheetOf(name, files, plan, plot.strokes);
  const faults = useMemo(
    () => findFaults(plot, { ...USUAL_CUTTER, rollWidthMm: sheet.rollWidthMm }),
    [plot, sheet.rollWidthMm],
  );
  return (
    <>
      <p role="status" className="mb-3 mt-2 border-l-4 border-next bg-card px-4 py-2">
        {saysOf(job)}
      </p>
      <div className="flex flex-wrap gap-6">
        <section aria-label="Plots" className="w-72">
          <ol className="border border-rule bg-card">
            {names.map((one) => (
              <li key={one} className="border-t border-rule first:border-t-0">
                <button
                  type="button"
                  aria-pressed={one === name}
                  className="flex w-full items-baseline gap-2 px-2 py-1 text-left hover:underline aria-pressed:bg-sheet aria-pressed:font-semibold"
                  onClick={() => setName(one)}
                >
                  <span className="min-w-0 flex-1 truncate">{one}</span>
                  <Verdict name={one} job={job} />
                </button>
              </li>
            ))}
          </ol>
          {faults.length > 0 && (
            <ul aria-label="Faults of this plot" className="mt-3 bg-card px-2">
              {faults.map(({ kind, text, x, y }) => (
                <li key={`${kind} ${x} ${y}`} className="border-t border-rule py-1 text-wrong">
                  {text}, at {x.toFixed(1)}, {y.toFixed(1)} mm
                </li>
              ))}
            </ul>
          )}
        </section>
        <CutterView name={name} plot={plot} {...sheet} faults={faults} />
      </div>
      {job && plan && job.layers.length > 0 && <PressView layers={job.layers} plan={plan} garment={garment} />}
    </>
  );
}

function saysOf(job: CutJob | null): string {
  if (!job) return "There is no layers.svg among the files: nothing to compare the layers with.";
  const { faults, layers } = job;
  const off = layers.reduce((sum, { extraMm2, missingMm2 }) => sum + extraMm2 + missingMm2, 0);
  const measured = `Weeded film and plan differ by ${off.toFixed(1)} mm² over ${layers.length} layers.`;
  if (faults.length === 0) return `Every layer cuts, closed and once. ${measured}`;
  return `${faults.map(({ file, text }) => `${file}: ${text}`).join("; ")}. ${measured}`;
}

/** What was found wrong with a file of the job's layers. */
function Verdict({ name, job }: { name: string; job: CutJob | null }) {
  const faults = job?.faults.filter(({ file }) => file === name) ?? [];
  const layer = job?.layers.find(({ order, id }) => name === `layer-${order}-${id}.plt`);
  if (faults.length > 0) return <span className="bg-card px-1 text-xs text-wrong">{faults.length} wrong</span>;
  if (!layer) return null;
  return <span className="text-xs text-soft">±{(layer.extraMm2 + layer.missingMm2).toFixed(1)} mm²</span>;
}

/** What a plot is cut from: a layer's own sheet, or a roll. */
function sheetOf(
  name: string,
  { rollWidths }: JobFiles,
  plan: Plan | null,
  strokes: readonly { points: readonly number[] }[],
) {
  const id = /-([0-9a-z-]+)\.plt$/.exec(name.replace(/^(layer|sheet)-\d+/, ""))?.[1] ?? "";
  const colour = plan?.layers.find((layer) => layer.id === id)?.colour ?? "#808080";
  const roll = name.startsWith("sheet-") ? (rollWidths.get(id) ?? null) : null;
  const reach = (axis: 0 | 1) =>
    strokes.reduce(
      (most, { points }) => points.reduce((far, v, i) => (i % 2 === axis ? Math.max(far, v) : far), most),
      1,
    );
  return {
    colour,
    rollWidthMm: roll,
    hasBoxes: roll !== null,
    widthMm: roll === null && plan ? plan.widthMm : reach(0),
    heightMm: roll ?? plan?.heightMm ?? reach(1),
  };
}
