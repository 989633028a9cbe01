// Puts the demo shop's shelf and jobs into a running application, through its public interface as anyone would.
import { type Job, jobSchema } from "@plain-palette/contract";
import { writeStockCsv } from "@plain-palette/core/formats";
import { DEMO_JOBS } from "./jobs.ts";
import { DEMO_STOCK } from "./stock.ts";

/** Fills the shelf and creates all demo jobs; throws what the server answers if it refuses one. */
export async function seedDemo(url: string): Promise<Job[]> {
  const shelf = await fetch(`${url}/api/shelf/file`, { method: "POST", body: writeStockCsv(DEMO_STOCK) });
  if (!shelf.ok) throw new Error(`the shelf: ${shelf.status} ${await shelf.text()}`);
  const jobs: Job[] = [];
  for (const demo of DEMO_JOBS) {
    const body = new Uint8Array(await demo.draw());
    const created = await call(url, "POST", `/api/jobs?name=${encodeURIComponent(demo.fileName)}`, body);
    await call(url, "PATCH", `/api/jobs/${created.id}`, JSON.stringify({ title: demo.title, client: demo.client }));
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

async function call(url: string, method: string, path: string, body: string | Uint8Array<ArrayBuffer>): Promise<Job> {
  const headers = { "Content-Type": typeof body === "string" ? "application/json" : "application/octet-stream" };
  const response = await fetch(url + path, { method, body, headers });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return jobSchema.parse(await response.json());
}
