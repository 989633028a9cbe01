// The newest files of a job, as the machines of the practice bench get them.
import type { JobCard, Run } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { api, runFileUrl } from "../api/client.ts";

/** What lies on the practice bench: plots by name, all layers as they are worn, and how wide each roll is. */
export interface JobFiles {
  readonly run: Run;
  readonly plots: ReadonlyMap<string, string>;
  readonly layersSvg: string | null;
  /** What an embroidery machine gets, and the shapes that it is to cover. */
  readonly stitchList: string | null;
  readonly shapesSvg: string | null;
  /** What a stone setter gets: the list, and templates by name, all in one format. */
  readonly stoneList: string | null;
  readonly templates: ReadonlyMap<string, string>;
  /** Of sheets, by the spot's id, mm. */
  readonly rollWidths: ReadonlyMap<string, number>;
}

export function useJobFiles(job: JobCard | null) {
  return useQuery({
    queryKey: ["practice", job?.id],
    enabled: job !== null,
    // Files are made on another page.
    staleTime: 0,
    queryFn: async (): Promise<JobFiles | null> => {
      const runs = job ? await api.listRuns(job.id) : [];
      const run = runs.find(({ state }) => state === "done");
      return run ? readFiles(run) : null;
    },
  });
}

async function readFiles(run: Run): Promise<JobFiles> {
  const read = async (name: string) => {
    const response = await fetch(runFileUrl(run.id, name, name));
    if (!response.ok) throw new Error(`${name} could not be fetched.`);
    return response.text();
  };
  const has = (wanted: string) => run.files.some(({ name }) => name === wanted);
  const all = run.files.map(({ name }) => name);
  const isTemplate = (name: string) => name.startsWith("template-");
  const names = all.filter((name) => name.endsWith(".plt") && !isTemplate(name));
  // A drawing says more of its sheet than a plot.
  const ending = all.some((name) => isTemplate(name) && name.endsWith(".svg")) ? ".svg" : ".plt";
  const templates = all.filter((name) => isTemplate(name) && name.endsWith(ending));
  const readIf = (name: string) => (has(name) ? read(name) : null);
  const [layersSvg, stitchList, stoneList, shapesSvg, report, ...texts] = await Promise.all([
    readIf("layers.svg"),
    readIf("stitches.csv"),
    readIf("stones.csv"),
    readIf("shapes.svg"),
    readIf("report.json"),
    ...[...names, ...templates].map(read),
  ]);
  return {
    run,
    plots: new Map(names.map((name, i) => [name, texts[i] ?? ""])),
    ...{ layersSvg, stitchList, stoneList, shapesSvg },
    templates: new Map(templates.map((name, i) => [name, texts[names.length + i] ?? ""])),
    rollWidths: new Map(sheetsIn(report).map(({ spotId, rollWidthMm }) => [spotId, rollWidthMm])),
  };
}

function sheetsIn(report: string | null): readonly { readonly spotId: string; readonly rollWidthMm: number }[] {
  const { sheets } = report ? JSON.parse(report) : { sheets: [] };
  return Array.isArray(sheets) ? sheets : [];
}
