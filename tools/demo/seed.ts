// Puts the demo shop's shelf, motifs and jobs into a running application, through its public interface as anyone would.
import { type Job, jobSchema, motifImportSchema, OWN_HEADER, seenOf } from "@plain-palette/contract";
import { writeStockCsv } from "@plain-palette/core/formats";
import { DEMO_JOBS } from "./jobs.ts";
import { DEMO_MOTIFS } from "./motifs.ts";
import { DEMO_STOCK } from "./stock.ts";

/** Fills the shelf, brings the motifs in and creates all demo jobs; throws what the server answers if it refuses one. */
export async function seedDemo(url: string): Promise<Job[]> {
  await ask(url, "POST", "/api/shelf/file", new TextEncoder().encode(writeStockCsv(DEMO_STOCK)));
  await ask(url, "PATCH", "/api/settings", JSON.stringify({ shopName: "Quayside Print Room" }));
  await seedMotifs(url);
  const jobs: Job[] = [];
  for (const demo of DEMO_JOBS) {
    const body = new Uint8Array(await demo.draw());
    const created = await call(url, "POST", `/api/jobs?name=${encodeURIComponent(demo.fileName)}`, body);
    const { title, client } = demo;
    await call(url, "PATCH", `/api/jobs/${created.id}`, JSON.stringify(seenOf(created, { title, client })));
    const artwork = { ...created.recipe.artwork, width: demo.width, garment: demo.garment };
    const made = demo.made && {
      process: demo.made.process,
      processes: { ...created.recipe.processes, [demo.made.process]: demo.made.settings },
    };
    const recipe = { ...created.recipe, artwork, ...made };
    jobs.push(
      await call(url, "POST", `/api/jobs/${created.id}/recipes`, JSON.stringify({ basedOn: created.head, recipe })),
    );
  }
  return jobs;
}

async function seedMotifs(url: string): Promise<void> {
  for (const { name, folder, words, svg } of DEMO_MOTIFS) {
    const address = `/api/motifs/files?name=${encodeURIComponent(`${name}.svg`)}`;
    const taken = motifImportSchema.parse(await ask(url, "POST", address, new TextEncoder().encode(svg)));
    for (const { motif } of taken.kept)
      await ask(url, "PATCH", `/api/motifs/${motif.id}`, JSON.stringify({ folder, words, version: motif.version }));
  }
}

async function call(url: string, method: string, path: string, body: string | Uint8Array<ArrayBuffer>): Promise<Job> {
  return jobSchema.parse(await ask(url, method, path, body));
}

/** The body of a good answer; throws any other. */
async function ask(
  url: string,
  method: string,
  path: string,
  body: string | Uint8Array<ArrayBuffer>,
): Promise<unknown> {
  const type = typeof body === "string" ? "application/json" : "application/octet-stream";
  const headers = { "Content-Type": type, [OWN_HEADER]: "demo" };
  const response = await fetch(url + path, { method, body, headers });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return response.json();
}
