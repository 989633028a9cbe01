// Routes of typefaces and their files.
import { typefaceKindSchema, typefacePatchSchema } from "@plain-palette/contract";
import express, { Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { askerOf, receiveFile } from "../doors/index.ts";
import { MAX_FONT_BYTES } from "../intake/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import type { TypefaceStore } from "./typeface-store.ts";

/** Files of shipped typefaces may change with the product. */
const A_DAY = "private, max-age=86400";

const fontBody = receiveFile(MAX_FONT_BYTES);

export function typefaceRoutes(typefaces: TypefaceStore, compute: Compute): Router {
  const router = Router();

  router.get("/typefaces", async (_request, response) => {
    response.json(await typefaces.list());
  });

  router.post("/typefaces", fontBody, async (request, response) => {
    const fileName = z.string().max(200).catch("font").parse(request.query.name);
    const kind = typefaceKindSchema.catch("other").parse(request.query.kind);
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const read = await compute.readFont(bytes, askerOf(request, response));
    if (!read.ok)
      throw new ProblemError({
        title: `${fileName} cannot become a typeface`,
        status: read.status,
        detail: read.message,
        kept: "Nothing was changed.",
      });
    response.status(201).json(await typefaces.add(read.value, fileName, kind));
  });

  router.patch("/typefaces/:id", express.json(), async (request, response) => {
    const changed = await typefaces.setKind(request.params.id, typefacePatchSchema.parse(request.body).kind);
    if (!changed) throw notFound("This typeface");
    response.json(changed);
  });

  router.delete("/typefaces/:id", async (request, response) => {
    await typefaces.putAway(request.params.id);
    response.status(204).end();
  });

  // Plain tables, so that page and server set the same outlines from the same bytes.
  router.get("/typefaces/:id/files/:number", async (request, response) => {
    const number = z.coerce.number().int().min(0).parse(request.params.number);
    const bytes = await typefaces.file(request.params.id, number);
    if (!bytes) throw notFound("This typeface");
    response.set("Cache-Control", A_DAY).type("font/sfnt").send(Buffer.from(bytes));
  });

  return router;
}
