// Routes of jobs, their recipes and their artwork.

import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { constants, createGzip } from "node:zlib";
import { headMoveSchema, type Job, jobPatchSchema, recipeSaveSchema } from "@plain-palette/contract";
import express, { type Request, type Response, Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { notFound, ProblemError } from "../http/problems.ts";
import { MAX_BYTES } from "../intake/index.ts";
import { type JobStore, type NewArtwork, StaleSave } from "./job-store.ts";

const hashSchema = z.string().regex(/^[0-9a-f]{64}$/);
/** Which page, and how wide shapes are drawn. */
const viewSchema = z
  .object({
    page: z.coerce.number().int().min(1).max(9999).default(1),
    width: z.coerce.number().int().min(16).max(20_000).nullable().default(null),
  })
  .transform(({ page, width }) => ({ page, drawnWidthPx: width }));
const fileBody = express.raw({ type: () => true, limit: MAX_BYTES });
const pictureBody = express.raw({ type: "image/webp", limit: "512kb" });

/** By its first bytes (RFC 9649, 2.4): a RIFF container of WebP. */
function isWebp(bytes: Buffer): boolean {
  return bytes.subarray(0, 4).toString("latin1") === "RIFF" && bytes.subarray(8, 12).toString("latin1") === "WEBP";
}

/** Bytes that are named by their content never change. */
const FOREVER = "private, max-age=31536000, immutable";

export function jobRoutes(jobs: JobStore, compute: Compute): Router {
  const router = Router();

  router.get("/jobs", async (_request, response) => {
    response.json(await jobs.list());
  });

  /** The client's file that a request brings, looked at; a bad one is refused. */
  const takeIn = async (request: Request, refusal: string): Promise<NewArtwork> => {
    const fileName = z.string().max(200).catch("artwork").parse(request.query.name);
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const inspection = await compute.inspect(bytes);
    if (!inspection.ok)
      throw new ProblemError({
        title: refusal,
        status: inspection.status,
        detail: inspection.message,
        kept: "Nothing was changed.",
      });
    const { facts, thumbnail } = inspection.value;
    return { ...facts, fileName, bytes, thumbnail };
  };

  router.post("/jobs", fileBody, async (request, response) => {
    const artwork = await takeIn(request, "This file cannot become a job");
    response.status(201).json(await jobs.create(artwork, titleFrom(artwork.fileName)));
  });

  router.post("/jobs/:id/artwork", fileBody, async (request, response) => {
    const basedOn = z.coerce.number().int().min(1).parse(request.query.basedOn);
    const { id } = request.params;
    orMissing(await jobs.find(id));
    const artwork = await takeIn(request, "This file cannot replace the artwork");
    await answerWrite(response, 201, () => jobs.replaceArtwork(id, artwork, basedOn));
  });

  router.get("/jobs/:id", async (request, response) => {
    response.json(orMissing(await jobs.find(request.params.id)));
  });

  router.patch("/jobs/:id", express.json(), async (request, response) => {
    response.json(orMissing(await jobs.patch(request.params.id, jobPatchSchema.parse(request.body))));
  });

  router.post("/jobs/:id/copy", async (request, response) => {
    response.status(201).json(orMissing(await jobs.copy(request.params.id)));
  });

  // How the result looks on the board, drawn by the browser that has it at hand.
  router.put("/jobs/:id/picture", pictureBody, async (request, response) => {
    const version = z.coerce.number().int().min(1).parse(request.query.version);
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    if (!isWebp(bytes))
      throw new ProblemError({ title: "This is no WebP picture", status: 415, kept: "Nothing was changed." });
    await jobs.savePicture(request.params.id, version, bytes);
    response.status(204).end();
  });

  router.get("/jobs/:id/picture", async (request, response) => {
    const bytes = await jobs.picture(request.params.id);
    if (!bytes) throw notFound("A picture of this job");
    response.set({ "Cache-Control": FOREVER, "X-Content-Type-Options": "nosniff" }).type("image/webp").send(bytes);
  });

  router.post("/jobs/:id/recipes", express.json({ limit: "4mb" }), async (request, response) => {
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

  // Raw pixels, so that the browser computes on exactly the bytes that the server computes on; their size goes before them.
  router.get("/artworks/:hash/pixels", async (request, response) => {
    const bytes = await jobs.artworkBytes(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    const pixels = await compute.decode(bytes, viewSchema.parse(request.query));
    if (!pixels.ok)
      throw new ProblemError({ title: "The artwork cannot be read", status: 422, detail: pixels.message });
    const { width, height, data } = pixels.value;
    response
      .set({ "Cache-Control": FOREVER, "Content-Encoding": "gzip", "Picture-Size": `${width}x${height}` })
      .type("application/octet-stream");
    const raw = Buffer.from(data.buffer, data.byteOffset, data.length);
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
