// The worker: the same core as the server's, on the same pixels. The latest request wins; a stale one stops at the next step.
import { makeRaster } from "@plain-palette/core/raster";
import {
  type Artwork,
  listWarnings,
  makeResultCache,
  type Results,
  runSteps,
  type Step,
} from "@plain-palette/core/recipe";
import type { Findings, Reduction } from "@plain-palette/core/reduce";
import { spotCoverage } from "@plain-palette/core/separate";
import { countShapes, type PlanarMap, spotPaths } from "@plain-palette/core/trace";
import type { ComputeMessage, ComputeRequest } from "./messages.ts";

const cache = makeResultCache();
let loaded: Artwork | null = null;
let latest = 0;
let working: Promise<void> = Promise.resolve();

self.onmessage = ({ data }: MessageEvent<ComputeRequest>) => {
  latest = data.id;
  // One at a time: the one before sees that it is stale and ends.
  working = working.then(() => compute(data));
};

function tell(message: ComputeMessage, transfer: Transferable[] = []): void {
  self.postMessage(message, { transfer });
}

/** Lets a newer request be heard. */
function breathe(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, 0));
}

async function compute(request: ComputeRequest): Promise<void> {
  const isStale = () => request.id !== latest;
  if (isStale()) return;
  try {
    const artwork = await load(request);
    const steps = runSteps(artwork, request.recipe, cache);
    let told: Step | null = null;
    for (let step = steps.next(); ; step = steps.next()) {
      // The step that was announced before is now computed and in the cache.
      if (told) tellResult(request.id, told);
      if (step.done) {
        tellSeparated(request, artwork, step.value);
        break;
      }
      if (step.value === "separate" && request.upTo === "trace") break;
      tell({ type: "step", id: request.id, step: step.value });
      told = step.value;
      await breathe();
      if (isStale()) return;
    }
    tell({ type: "done", id: request.id });
  } catch (error) {
    tell({ type: "failed", id: request.id, message: error instanceof Error ? error.message : String(error) });
  }
}

async function load({ id, hash, width, height, pixelsUrl }: ComputeRequest): Promise<Artwork> {
  if (loaded?.key === hash) return loaded;
  tell({ type: "step", id, step: "load" });
  const response = await fetch(pixelsUrl);
  if (!response.ok) throw new Error("The artwork's pixels could not be fetched. Reload the page.");
  const data = new Uint8ClampedArray(await response.arrayBuffer());
  const raster = makeRaster(width, height, data);
  const bitmap = await createImageBitmap(new ImageData(data, width, height), { premultiplyAlpha: "default" });
  tell({ type: "loaded", hash, bitmap }, [bitmap]);
  loaded = { key: hash, raster };
  return loaded;
}

function tellResult(id: number, step: Step): void {
  const findings = cache.kept.get("find")?.result as Findings;
  const reduction = cache.kept.get("reduce")?.result as Reduction;
  if (step === "reduce") {
    const { spots, proposedCount, rungs } = reduction;
    const { opaquePx, noise, found } = findings;
    tell({ type: "reduced", id, view: { spots, foundCount: found.length, proposedCount, rungs, opaquePx, noise } });
  } else if (step === "trace") {
    const map = cache.kept.get("trace")?.result as PlanarMap;
    tell({
      type: "traced",
      id,
      view: {
        fills: reduction.spots.map((spot) => ({ spotId: spot.id, paths: spotPaths(map, spot.id) })),
        edges: map.edges.map((edge) => edge.path),
        counts: countShapes(map),
        coverage: spotCoverage(map),
      },
    });
  }
}

function tellSeparated({ id, recipe }: ComputeRequest, artwork: Artwork, results: Results): void {
  tell({ type: "separated", id, separation: results.separation, warnings: listWarnings(artwork, results, recipe) });
}
