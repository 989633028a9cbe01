import { createHash } from "node:crypto";
import type { Job } from "@plain-palette/contract";
import { makeRecipe, runPipeline } from "@plain-palette/core/recipe";
import { type Separation, screens } from "@plain-palette/core/screens";
import { expect, test } from "@playwright/test";
import sharp from "sharp";
import { DEMO_JOBS } from "../../tools/demo/jobs.ts";
import type { ComputeMessage, ComputeRequest } from "../src/compute/messages.ts";

/** SHA-256 of all curves of all plates and edges, bit for bit. */
function digest(paths: readonly (readonly number[])[]): string {
  const hash = createHash("sha256");
  for (const path of paths) hash.update(new Uint8Array(Float64Array.from(path).buffer));
  return hash.digest("hex");
}

const platesOf = (separation: Pick<Separation, "plates"> | null): number[][] =>
  separation?.plates.flatMap(({ region }) => region.map((path) => [...path])) ?? [];

test("the browser's worker and Node give byte-equal results for one recipe", async ({ page }) => {
  const demo = DEMO_JOBS.find((job) => job.client === "Tern Island Ferry");
  if (!demo) throw new Error("no ferry among the demo jobs");
  const bytes = await demo.draw();
  const { data, info } = await sharp(bytes)
    .toColourspace("srgb")
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const raster = { width: info.width, height: info.height, data: new Uint8ClampedArray(data) };
  // Straightened and picked, so that every pixel was resampled and the rims unmixed.
  const recipe = makeRecipe({
    artwork: {
      garment: "#1d2a44",
      actions: [
        { id: "a1", kind: "straighten", angleDeg: 1.73 },
        { id: "a2", kind: "pick", seeds: [{ x: 4, y: 4 }], hex: "#ffffff" },
      ],
    },
  });
  const own = runPipeline({ key: "ferry", raster }, recipe);

  await page.goto("/");
  const { jobs }: { jobs: Job[] } = await (await page.request.get("/api/board")).json();
  const job = jobs.find(({ title, client }) => title === demo.title && client === demo.client);
  if (!job) throw new Error("the ferry was not seeded");
  const workerStarted = page.waitForEvent("worker");
  await page.goto(`/jobs/${job.id}/artwork`);
  // Its threads may share memory (HTML standard, cross-origin isolation).
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
  const workerUrl = (await workerStarted).url();
  const { hash } = job.artwork;
  const request: ComputeRequest = {
    type: "compute",
    id: 1,
    hash,
    recipe,
    upTo: "make",
    focusId: null,
    compare: null,
    checkThin: null,
    measure: false,
    trying: null,
    byHand: false,
    countsColours: false,
  };
  const theirs = await page.evaluate(
    ({ workerUrl, request }) =>
      new Promise<{ edges: number[][]; made: string }>((resolve, reject) => {
        const worker = new Worker(workerUrl, { type: "module" });
        let edges: number[][] = [];
        worker.onmessage = ({ data }: MessageEvent<ComputeMessage>) => {
          if (data.type === "traced") edges = data.view.edges.map((path) => [...path]);
          if (data.type === "failed") reject(new Error(data.message));
          // Numbers in a plain list: a flat array would come out of the page as an object.
          if (data.type === "made")
            resolve({
              edges,
              made: JSON.stringify(data.made[0]?.result, (_, value) =>
                value instanceof Float64Array ? [...value] : value,
              ),
            });
        };
        worker.postMessage(request);
      }),
    { workerUrl, request },
  );
  expect(theirs.edges.length).toBeGreaterThan(100);
  expect(digest(theirs.edges)).toBe(digest(own.map.edges.map((edge) => [...edge.path])));
  expect(digest(platesOf(JSON.parse(theirs.made)))).toBe(digest(platesOf(screens.resultIn(own.made))));
});
