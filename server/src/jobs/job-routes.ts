// Routes of jobs and their recipes.
import { createHash } from "node:crypto";
import {
  boardSearchSchema,
  headMoveSchema,
  type Job,
  jobPatchSchema,
  MOST_RECIPE_BYTES,
  ownIdSchema,
  RECIPE_TOO_LARGE,
  recipeSaveSchema,
  type TicketChange,
} from "@plain-palette/contract";
import express, { type Request, type Response, Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { askerOf, receiveFile } from "../doors/index.ts";
import { MAX_BYTES } from "../intake/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import { FOREVER } from "./artwork-routes.ts";
import { type JobStore, type NewArtwork, OthersChange, StaleSave } from "./job-store.ts";

const artworkSaveSchema = recipeSaveSchema.omit({ recipe: true }).extend({ basedOn: z.coerce.number().int().min(1) });

const fileBody = receiveFile(MAX_BYTES);
const pictureBody = express.raw({ type: "image/webp", limit: "512kb" });

const recipeBody = express.json({ limit: MOST_RECIPE_BYTES + 1024 });
/** A recipe, within the one limit that all recipes have. */
const receiveRecipe: typeof recipeBody = (request, response, next) =>
  recipeBody(request, response, (error: unknown) => {
    const isTooLarge =
      typeof error === "object" && error !== null && "type" in error && error.type === "entity.too.large";
    next(isTooLarge ? new ProblemError(RECIPE_TOO_LARGE) : error);
  });

/** By its first bytes (RFC 9649, 2.4): a RIFF container of WebP. */
function isWebp(bytes: Buffer): boolean {
  return bytes.subarray(0, 4).toString("latin1") === "RIFF" && bytes.subarray(8, 12).toString("latin1") === "WEBP";
}

export function jobRoutes(jobs: JobStore, compute: Compute): Router {
  const router = Router();

  router.get("/board", async (request, response) => {
    response.json(await jobs.board(boardSearchSchema.parse(request.query)));
  });

  /** The client's file that a request brings, looked at; a bad one is refused. */
  const takeIn = async (request: Request, response: Response, refusal: string): Promise<NewArtwork> => {
    const fileName = z.string().max(200).catch("artwork").parse(request.query.name);
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const hash = createHash("sha256").update(bytes).digest("hex");
    const inspection = await compute.inspect(hash, bytes, askerOf(request, response));
    if (!inspection.ok)
      throw new ProblemError({
        title: refusal,
        status: inspection.status,
        detail: inspection.message,
        kept: "Nothing was changed.",
      });
    const { facts, thumbnail } = inspection.value;
    return { ...facts, hash, fileName, bytes, thumbnail };
  };

  router.post("/jobs", fileBody, async (request, response) => {
    const { id } = ownIdSchema.parse(request.query);
    const there = id && (await jobs.find(id));
    if (there) {
      response.status(201).json(there);
      return;
    }
    const artwork = await takeIn(request, response, "This file cannot become a job");
    response.status(201).json(await jobs.create(artwork, titleFrom(artwork.fileName), id));
  });

  router.post("/jobs/:id/artwork", fileBody, async (request, response) => {
    const save = artworkSaveSchema.parse(request.query);
    const { id } = request.params;
    orMissing(await jobs.find(id));
    const artwork = await takeIn(request, response, "This file cannot replace the artwork");
    await answerWrite(response, 201, () => jobs.replaceArtwork(id, artwork, save));
  });

  router.get("/jobs/:id", async (request, response) => {
    response.json(orMissing(await jobs.find(request.params.id)));
  });

  router.patch("/jobs/:id", express.json(), async (request, response) => {
    const patch = jobPatchSchema.parse(request.body);
    const job = await jobs.patch(request.params.id, patch).catch((error: unknown) => {
      throw error instanceof OthersChange ? changedMeanwhile(error) : error;
    });
    response.json(orMissing(job));
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

  router.post("/jobs/:id/recipes", receiveRecipe, async (request, response) => {
    const save = recipeSaveSchema.parse(request.body);
    await answerWrite(response, 201, () => jobs.saveRecipe(request.params.id, save));
  });

  router.put("/jobs/:id/head", express.json(), async (request, response) => {
    const move = headMoveSchema.parse(request.body);
    await answerWrite(response, 200, () => jobs.moveHead(request.params.id, move));
  });

  return router;
}

/** A job's first title: the file's name without what a computer added. */
function titleFrom(fileName: string): string {
  const words = fileName
    .replace(/\.[a-z0-9]{2,5}$/i, "")
    .replace(/[_-]+/g, " ")
    .trim();
  return words.slice(0, 120) || "New job";
}

const TICKET_WORDS: Readonly<Record<keyof TicketChange, string>> = {
  title: "the title",
  client: "the client",
  step: "the step",
  isPutAway: "whether the job is on the board",
  dueDay: "the due day",
  clientMail: "the client's address",
};

function changedMeanwhile({ key, now }: OthersChange): ProblemError {
  return new ProblemError({
    title: `Somebody else changed ${TICKET_WORDS[key]} meanwhile`,
    status: 409,
    detail: typeof now === "string" && now !== "" ? `It is "${now}" now.` : "",
    kept: "Theirs is kept.",
    cure: "Look at theirs, and change it once more if yours is right.",
  });
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
