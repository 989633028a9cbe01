// The clients' door: an application of its own, on an address of its own, that knows proofs by their secret and nothing else.
// Whoever has a link reaches no route of the shop, for there is none.
import { join } from "node:path";
import { clientNoteSchema, clientYesSchema } from "@plain-palette/contract";
import express, { type Express, type Response } from "express";
import { type Disk, ownPagesOnly, securityHeaders } from "../doors/index.ts";
import { answerErrors, ProblemError } from "../problems/index.ts";
import type { ProofStore } from "./proof-store.ts";

/** What is said of a link that opens nothing: ended, withdrawn or never made is all one. */
function nothingThere(): ProblemError {
  return new ProblemError({
    title: "This link opens nothing",
    status: 404,
    detail: "It may have ended, or been taken back, or be written wrong.",
    cure: "Please ask the shop for a new one.",
  });
}

/** As long as a secret is; anything else is looked for all the same, so that no answer comes sooner. */
const LONGEST = 200;

/** `addresses`: how clients reach it besides its own address and loopback. */
export function makeClientApp(
  proofs: ProofStore,
  disk: Disk,
  addresses: readonly string[],
  webRoot: string | undefined,
): Express {
  const app = express();
  app.disable("x-powered-by");
  app.use(securityHeaders("no-referrer"));
  app.use(ownPagesOnly(addresses));
  app.use(disk.refuseWhenFull);
  const json = express.json({ limit: "16kb" });
  const orNothing = <T>(found: T | null): T => {
    if (found === null) throw nothingThere();
    return found;
  };
  const noStore = (response: Response) => response.set("Cache-Control", "no-store");

  app.get("/api/proof/:token", async (request, response) => {
    const { view } = orNothing(await proofs.byToken(request.params.token.slice(0, LONGEST)));
    noStore(response).json(view);
  });
  app.get("/api/proof/:token/pdf", async (request, response) => {
    const pdf = orNothing(await proofs.pdfByToken(request.params.token.slice(0, LONGEST)));
    noStore(response).type("application/pdf").send(pdf);
  });
  app.post("/api/proof/:token/notes", json, async (request, response) => {
    const note = clientNoteSchema.parse(request.body);
    noStore(response)
      .status(201)
      .json(orNothing(await proofs.answer(request.params.token.slice(0, LONGEST), note)));
  });
  app.post("/api/proof/:token/yes", json, async (request, response) => {
    const yes = clientYesSchema.parse(request.body);
    noStore(response)
      .status(201)
      .json(orNothing(await proofs.sayYes(request.params.token.slice(0, LONGEST), yes)));
  });
  if (webRoot) {
    app.use("/assets", express.static(join(webRoot, "assets"), { immutable: true, maxAge: "1y", fallthrough: false }));
    app.get("/mark.svg", (_request, response) => response.sendFile(join(webRoot, "mark.svg")));
    // The page is the same for every link, and says itself what it does not open.
    app.get("/proof/:token", async (request, response) => {
      const isOpen = await proofs.isOpen(request.params.token.slice(0, LONGEST));
      noStore(response)
        .status(isOpen ? 200 : 404)
        .sendFile(join(webRoot, "client.html"), { cacheControl: false, etag: false, lastModified: false });
    });
  }
  app.use(() => {
    throw nothingThere();
  });
  app.use(answerErrors);
  return app;
}
