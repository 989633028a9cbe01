// Routes of the shelf, its files and the shop's settings.
import {
  ownIdSchema,
  type ShopStock,
  seenVersionSchema,
  settingsSaveSchema,
  stockFormatSchema,
  stockSaveSchema,
} from "@plain-palette/contract";
import { writeCxf3, writeStockCsv } from "@plain-palette/core/formats";
import { stockKindSchema, stockSchema } from "@plain-palette/core/shelf";
import express, { Router } from "express";
import type { Compute } from "../compute/index.ts";
import { isThereAlready } from "../database/index.ts";
import { askerOf, receiveFile } from "../doors/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import { OthersSetting, type ShelfStore } from "./shelf-store.ts";

/** A shelf of ten thousand things is about a megabyte. */
const MOST_BYTES = 4 * 2 ** 20;
/** Taken over in one transaction: more would hold the database up. */
const MOST_STOCK = 5000;

const fileBody = receiveFile(MOST_BYTES);
const newStockSchema = stockSchema.extend(ownIdSchema.shape);

const MEDIA_TYPES = { csv: "text/csv; charset=utf-8", cxf3: "application/xml; charset=utf-8" } as const;

export function shelfRoutes(shelf: ShelfStore, compute: Compute): Router {
  const router = Router();

  router.get("/shelf", async (_request, response) => {
    response.json(await shelf.list());
  });

  router.post("/shelf", express.json(), async (request, response) => {
    const { id, ...stock } = newStockSchema.parse(request.body);
    const added = await shelf.add(stock, id).catch((error: unknown) => {
      throw isThereAlready(error) ? isThere(stock.kind, stock.code) : error;
    });
    if (!added) throw isThere(stock.kind, stock.code);
    response.status(201).json(added);
  });

  router.put("/shelf/:id", express.json(), async (request, response) => {
    const { version, ...stock } = stockSaveSchema.parse(request.body);
    const change = await shelf.change(request.params.id, stock, version).catch((error: unknown) => {
      throw isThereAlready(error) ? isThere(stock.kind, stock.code) : error;
    });
    if (!change) throw notFound("This stock");
    if (!change.isTaken) throw changedMeanwhile(`"${change.stored.name}"`);
    response.json(change.stored);
  });

  router.get("/shelf/put-away", async (_request, response) => {
    response.json(await shelf.listPutAway());
  });

  const putAway = async (id: string, query: unknown, isPutAway: boolean): Promise<ShopStock> => {
    const change = await shelf.putAway(id, seenVersionSchema.parse(query).version, isPutAway);
    if (!change) throw notFound("This stock");
    if (!change.isTaken) throw changedMeanwhile(`"${change.stored.name}"`);
    return change.stored;
  };
  router.delete("/shelf/:id", async (request, response) => {
    response.json(await putAway(request.params.id, request.query, true));
  });
  router.post("/shelf/:id/return", async (request, response) => {
    response.json(await putAway(request.params.id, request.query, false));
  });

  router.get("/shelf/file", async (request, response) => {
    const format = stockFormatSchema.parse(request.query.format);
    const stock = await shelf.list();
    const text = format === "csv" ? writeStockCsv(stock) : writeCxf3(stock, new Date().toISOString());
    response
      .type(MEDIA_TYPES[format])
      .attachment(`shelf.${format === "csv" ? "csv" : "cxf"}`)
      .send(text);
  });

  router.post("/shelf/file", fileBody, async (request, response) => {
    const kind = stockKindSchema.parse(request.query.kind ?? "ink");
    const bytes: Buffer = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
    const read = await compute.readStock(bytes, kind, askerOf(request, response));
    if (!read.ok)
      throw new ProblemError({
        ...{ title: "This file cannot be read", status: read.status, detail: read.message },
        kept: "Nothing was taken over; the shelf is as it was.",
      });
    const { stock, problems } = read.value;
    if (problems)
      throw new ProblemError({
        title:
          problems.length === 1
            ? "One thing in this file does not fit"
            : `${problems.length} things in this file do not fit`,
        status: 422,
        lines: problems.slice(0, 200),
        kept: "Nothing was taken over; the shelf is as it was.",
        cure: "Put the named lines right and take the file in again.",
      });
    if (stock.length > MOST_STOCK)
      throw new ProblemError({
        title: `This file has ${stock.length} things; ${MOST_STOCK} at a time are taken in`,
        status: 413,
        kept: "Nothing was taken over; the shelf is as it was.",
        cure: "Split the file and take in its parts one after the other.",
      });
    response.json(await shelf.takeOver(stock));
  });

  router.get("/settings", async (_request, response) => {
    response.json(await shelf.settings());
  });

  // Each setting for itself: two people who change two of them both mean what they say.
  router.patch("/settings", express.json(), async (request, response) => {
    const stored = await shelf.changeSettings(settingsSaveSchema.parse(request.body)).catch((error: unknown) => {
      throw error instanceof OthersSetting ? changedMeanwhile("this setting", `It is ${error.now} now.`) : error;
    });
    response.json(stored);
  });

  return router;
}

function changedMeanwhile(what: string, detail?: string): ProblemError {
  return new ProblemError({
    title: `Somebody else changed ${what} meanwhile`,
    status: 409,
    detail,
    kept: "Theirs is kept.",
    cure: "Look at theirs, then change it once more.",
  });
}

function isThere(kind: string, code: string): ProblemError {
  return new ProblemError({
    title: `The shelf has ${kind} ${code} already`,
    status: 409,
    kept: "The shelf is as it was.",
    cure: "Give it a code of its own, or change the one that is there.",
  });
}
