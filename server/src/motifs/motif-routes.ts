// Routes of motifs, their contents, and files out and in.
import { motifCreateSchema, motifEditionSchema, motifPatchSchema, motifSearchSchema } from "@plain-palette/contract";
import { drawMotifSvg, type FiledMotif, writeMotifSvg } from "@plain-palette/core/formats";
import express, { type Request, type Response, Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { askerOf, receiveFile } from "../doors/index.ts";
import { MAX_ARCHIVE_BYTES } from "../intake/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import { type MotifStore, StaleMotif } from "./motif-store.ts";

/** Contents never change. */
const FOR_EVER = "private, max-age=31536000, immutable";

const anyFile = receiveFile(MAX_ARCHIVE_BYTES);
/** As large as the largest content, with its numbers in words. */
const content = express.json({ limit: "32mb" });

/** Says that somebody else changed it meanwhile. */
async function orStale<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof StaleMotif)) throw error;
    throw new ProblemError({
      title: "Somebody else has changed this motif meanwhile",
      status: 409,
      kept: "Their change is kept, yours was not made.",
      cure: "Look at it as it is now, and make your change again.",
    });
  }
}

function sendFile(response: Response, name: string, type: string, bytes: Uint8Array | string): void {
  response
    .set("Content-Disposition", `attachment; filename="motif"; filename*=UTF-8''${encodeURIComponent(name)}`)
    .type(type)
    .send(typeof bytes === "string" ? bytes : Buffer.from(bytes));
}

export function motifRoutes(motifs: MotifStore, compute: Compute): Router {
  const router = Router();

  /** The motifs that a request's file brings; a bad one is refused. */
  const readFile = async (request: Request, response: Response): Promise<FiledMotif[]> => {
    const fileName = z.string().max(200).catch("motif").parse(request.query.name);
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const read = await compute.readMotifs({ bytes, fileName }, askerOf(request, response));
    if (read.ok) return read.value;
    throw new ProblemError({
      title: `${fileName} cannot become a motif`,
      status: read.status,
      detail: read.message,
      kept: "Nothing of it was taken over.",
    });
  };

  router.get("/motifs", async (request, response) => {
    response.json(await motifs.find(motifSearchSchema.parse(request.query)));
  });

  router.post("/motifs", content, async (request, response) => {
    const [kept] = await motifs.keep([motifCreateSchema.parse(request.body)]);
    response.status(201).json(kept);
  });

  router.post("/motifs/files", anyFile, async (request, response) => {
    response.status(201).json({ kept: await motifs.keep(await readFile(request, response)) });
  });

  router.get("/motifs/archive", async (request, response) => {
    const packed = await compute.packMotifs(await motifs.all(), askerOf(request, response));
    sendFile(response, "motifs.zip", "application/zip", packed);
  });

  router.get("/motifs/contents/:hash", async (request, response) => {
    const motif = await motifs.content(request.params.hash);
    if (!motif) throw notFound("This motif");
    response.set("Cache-Control", FOR_EVER).json(motif);
  });

  router.get("/motifs/contents/:hash/picture", async (request, response) => {
    const motif = await motifs.content(request.params.hash);
    if (!motif) throw notFound("This motif");
    response.set("Cache-Control", FOR_EVER).type("image/svg+xml").send(drawMotifSvg(motif));
  });

  router.get("/motifs/:id", async (request, response) => {
    response.json(await motifs.detail(request.params.id));
  });

  router.get("/motifs/:id/file", async (request, response) => {
    const { hash, name, folder, words, from } = await motifs.detail(request.params.id);
    const motif = await motifs.content(hash);
    if (!motif) throw notFound("This motif");
    sendFile(response, `${name}.svg`, "image/svg+xml", writeMotifSvg({ motif, facts: { name, folder, words, from } }));
  });

  router.patch("/motifs/:id", express.json(), async (request, response) => {
    response.json(await orStale(motifs.patch(request.params.id, motifPatchSchema.parse(request.body))));
  });

  router.post("/motifs/:id/editions", content, async (request, response) => {
    const { motif, version } = motifEditionSchema.parse(request.body);
    response.status(201).json(await orStale(motifs.addEdition(request.params.id, motif, version)));
  });

  router.post("/motifs/:id/editions/file", anyFile, async (request, response) => {
    const version = z.coerce.number().int().min(1).parse(request.query.version);
    const [first, ...others] = await readFile(request, response);
    if (!first || others.length > 0)
      throw new ProblemError({
        title: "An archive is no version of one motif",
        status: 422,
        kept: "Nothing was changed.",
      });
    response.status(201).json(await orStale(motifs.addEdition(request.params.id, first.motif, version)));
  });

  return router;
}
