// The shop's routes of proofs and of the mail about them.
import { type Job, proofSendSchema, type ShopProof, shopNoteSchema } from "@plain-palette/contract";
import { formatHex } from "@plain-palette/core/colour";
import { stockRgb } from "@plain-palette/core/shelf";
import express, { Router } from "express";
import type { Asker, Compute } from "../compute/index.ts";
import { askerOf } from "../doors/index.ts";
import type { JobStore } from "../jobs/index.ts";
import { readLibrary } from "../library/index.ts";
import type { MotifStore } from "../motifs/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import type { ShelfStore } from "../shelf/index.ts";
import type { TypefaceStore } from "../typefaces/index.ts";
import type { MailStore } from "./mail-store.ts";
import { type MailKind, writeMail } from "./mail-words.ts";
import type { ProofStore } from "./proof-store.ts";

export interface ProofServices {
  readonly jobs: JobStore;
  readonly proofs: ProofStore;
  readonly mails: MailStore;
  readonly shelf: ShelfStore;
  readonly typefaces: TypefaceStore;
  readonly motifs: MotifStore;
  readonly compute: Compute;
}

export function proofRoutes(services: ProofServices): Router {
  const { jobs, proofs, mails, shelf } = services;
  const router = Router();
  const mail = async (kind: MailKind, job: Job, proof: ShopProof, text = "") => {
    const { shopName } = await shelf.settings();
    await mails.send({
      ...{ jobId: job.id, kind, to: job.clientMail, link: proof.link },
      ...writeMail(kind, { shopName, title: job.title, client: job.client, proof, text }),
    });
  };
  const jobOf = async (id: string): Promise<Job> => {
    const job = await jobs.find(id);
    if (!job) throw notFound("This job");
    return job;
  };

  router.get("/jobs/:id/proofs", async (request, response) => {
    response.json(await proofs.listOf(request.params.id));
  });

  // Frozen here, from what is stored: nobody else has a say in what the client sees.
  router.post("/jobs/:id/proofs", express.json(), async (request, response) => {
    const { recipeVersion, days } = proofSendSchema.parse(request.body);
    const job = await jobOf(request.params.id);
    const proof = await freezeProof(job, { recipeVersion, days, asker: askerOf(request, response) }, services);
    await mail("ready", job, proof, proof.number > 1 ? "again" : "");
    response.status(201).json(proof);
  });

  router.get("/jobs/:id/proofs/:proof", async (request, response) => {
    response.json(await proofs.body(request.params.id, request.params.proof));
  });

  router.get("/jobs/:id/proofs/:proof/pdf", async (request, response) => {
    response.type("application/pdf").send(await proofs.pdf(request.params.id, request.params.proof));
  });

  router.post("/jobs/:id/proofs/:proof/notes", express.json({ limit: "16kb" }), async (request, response) => {
    const note = shopNoteSchema.parse(request.body);
    const proof = await proofs.say(request.params.id, request.params.proof, note);
    await mail("question", await jobOf(request.params.id), proof, note.text);
    response.status(201).json(proof);
  });

  router.post("/jobs/:id/proofs/:proof/reminder", async (request, response) => {
    const proof = await proofs.find(request.params.id, request.params.proof);
    await mail("reminder", await jobOf(request.params.id), proof);
    response.status(204).end();
  });

  router.post("/jobs/:id/proofs/:proof/withdrawal", async (request, response) => {
    response.json(await proofs.withdraw(request.params.id, request.params.proof));
  });

  router.get("/mails", async (_request, response) => {
    response.json(await mails.list());
  });

  return router;
}

async function freezeProof(
  job: Job,
  { recipeVersion, days, asker }: { recipeVersion: number; days: number; asker: Asker },
  { jobs, proofs, shelf, typefaces, motifs, compute }: ProofServices,
): Promise<ShopProof> {
  const version = await jobs.version(job.id, recipeVersion);
  if (!version) throw notFound(`Version ${recipeVersion} of this job`);
  const { recipe, artworkHash } = version;
  const bytes = async () => {
    const found = await jobs.artworkBytes(artworkHash);
    if (!found) throw notFound("The client's file");
    return found;
  };
  const pixels = await compute.pixels({ hash: artworkHash, view: recipe.artwork, bytes }, asker);
  if (!pixels.ok)
    throw new ProblemError({
      title: "The client's file cannot be read",
      status: pixels.status,
      detail: pixels.message,
    });
  const settings = await shelf.settings();
  const garment = (await shelf.list()).find(
    (stock) => stock.kind === "garment" && formatHex(stockRgb(stock)) === recipe.artwork.garment,
  );
  const number = await proofs.nextNumber(job.id);
  const sentAt = new Date();
  const { title, client } = job;
  const facts = {
    ...{ shopName: settings.shopName, jobNumber: job.number, number, title, client, shop: settings },
    garmentName: garment ? `${garment.code} ${garment.name}` : null,
  };
  const library = await readLibrary(recipe, { typefaces, motifs });
  const { proof, pdf } = await compute.makeProof({ pixels: pixels.value, recipe, sentAt, facts, ...library }, asker);
  return proofs.send({ jobId: job.id, number, recipeVersion, proof, pdf, sentAt, days });
}
