// Routes of jobs, their recipes and their artwork.

import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { constants, createGzip } from "node:zlib";
import { headMoveSchema, type Job, jobPatchSchema, recipeSaveSchema } from "@plain-palette/contract";
import express, { type Response, Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { notFound, ProblemError } from "../http/problems.ts";
import { MAX_BYTES } from "../intake/index.ts";
import { type JobStore, StaleSave } from "./job-store.ts";

const hashSchema = z.string().regex(/^[0-9a-f]{64}$/);
/** Bytes that are named by their content never change. */
const FOREVER = "private, max-age=31536000, immutable";

export function jobRoutes(jobs: JobStore, compute: Compute): Router {
  const router = Router();

  router.get("/jobs", async (_request, response) => {
    response.json(await jobs.list());
  });

  router.post("/jobs", express.raw({ type: () => true, limit: MAX_BYTES }), async (request, response) => {
    const fileName = z.string().max(200).catch("artwork").parse(request.query.name);
    const content: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const inspection = await compute.inspect(content);
    if (!inspection.ok)
      throw new ProblemError({
        title: "This file cannot become a job",
        status: inspection.status,
        detail: inspection.message,
        kept: "Nothing was changed.",
      });
    const { facts, thumbnail } = inspection.value;
    const job = await jobs.create({ ...facts, fileName, content, thumbnail }, titleFrom(fileName));
    response.status(201).json(job);
  });

  router.get("/jobs/:id", async (request, response) => {
    response.json(orMissing(await jobs.find(request.params.id)));
  });

  router.patch("/jobs/:id", express.json(), async (request, response) => {
    response.json(orMissing(await jobs.patch(request.params.id, jobPatchSchema.parse(request.body))));
  });

  router.post("/jobs/:id/recipes", express.json({ limit: "1mb" }), async (request, response) => {
    const save = recipeSaveSchema.parse(request.body);
    await answerWrite(response, 201, () => jobs.saveRecipe(request.params.id, save));
  });

  router.put("/jobs/:id/head", express.json(), async (request, response) => {
    const move = headMoveSchema.parse(request.body);
    await answerWrite(response, 200, () => jobs.moveHead(request.params.id, move));
  });

  router.get("/artworks/:hash/file", async (request, response) => {
    const bytes = await jobs.artworkBytes(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    // Never shown by the browser itself: a client's SVG is untrusted.
    response
      .set({ "Cache-Control": FOREVER, "Content-Disposition": "attachment" })
      .type("application/octet-stream")
      .send(bytes);
  });

  router.get("/artworks/:hash/thumbnail", async (request, response) => {
    const bytes = await jobs.thumbnail(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    response.set("Cache-Control", FOREVER).type("image/webp").send(bytes);
  });

  // Raw pixels, so that the browser computes on exactly the bytes that the server computes on.
  router.get("/artworks/:hash/pixels", async (request, response) => {
    const bytes = await jobs.artworkBytes(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    const pixels = await compute.decode(bytes);
    if (!pixels.ok)
      throw new ProblemError({ title: "The artwork cannot be read", status: 422, detail: pixels.message });
    response.set({ "Cache-Control": FOREVER, "Content-Encoding": "gzip" }).type("application/octet-stream");
    const raw = Buffer.from(pixels.value.buffer, pixels.value.byteOffset, pixels.value.length);
    await pipeline(Readable.from(inPieces(raw)), createGzip({ level: constants.Z_BEST_SPEED }), response);
  });

  return router;
}

function* inPieces(bytes: Buffer): Generator<Buffer> {
  for (let o = 0; o < bytes.length; o += 1 << 20) yield bytes.subarray(o, o + (1 << 20));
}

/** A job's first title: the file's name without what a computer added. */
function titleFrom(fileName: string): string {
  const words = fileName
    .replace(/\.[a-z0-9]{2,5}$/i, "")
    .replace(/[_-]+/g, " ")
    .trim();
  return words.slice(0, 120) || "New job";
}

function orMissing(job: Job | null): Job {
  if (!job) throw notFound("This job");
  return job;
}

async function answerWrite(response: Response, status: number, write: () => Promise<Job | null>): Promise<void> {
  try {
    response.status(status).json(orMissing(await write()));
  } catch (error) {
    if (!(error instanceof StaleSave)) throw error;
    throw new ProblemError({
      title: "Somebody else changed this job meanwhile",
      status: 409,
      kept: error.stored === undefined ? "Both recipes are kept." : `Your change is kept as version ${error.stored}.`,
      cure: "Choose which of the two goes on.",
      stored: error.stored,
      head: error.head,
    });
  }
}
