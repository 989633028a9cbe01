// Routes of runs: order, watch, stop, fetch the files.
import { isOver, runStartSchema } from "@plain-palette/contract";
import express, { Router } from "express";
import { zipSync } from "fflate";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { clientOf } from "../doors/index.ts";
import { notFound } from "../problems/index.ts";
import type { RunStore } from "./run-store.ts";
import { makeRunWatch } from "./run-watch.ts";

const savedAsSchema = z.object({ as: z.string().trim().min(1).max(200).optional() });

/** The name that a download gets: by job, where the page says so. */
function savedAs(query: unknown, name: string): string {
  return savedAsSchema.parse(query).as ?? name;
}

export function runRoutes(runs: RunStore, compute: Compute): Router {
  const router = Router();
  const watch = makeRunWatch(runs);

  router.post("/jobs/:id/runs", express.json(), async (request, response) => {
    const { recipeVersion } = runStartSchema.parse(request.body);
    response.status(201).json(await runs.order(request.params.id, recipeVersion, clientOf(request)));
  });

  router.get("/jobs/:id/runs", async (request, response) => {
    // Whoever asks for these looks at the output, and will want files.
    compute.getReadyToMake();
    response.json(await runs.listOf(request.params.id));
  });

  router.get("/runs/:id", async (request, response) => {
    const run = await runs.find(request.params.id);
    if (!run) throw notFound("This run");
    response.json(run);
  });

  router.post("/runs/:id/stop", async (request, response) => {
    await runs.requestStop(request.params.id);
    const run = await runs.find(request.params.id);
    if (!run) throw notFound("This run");
    response.status(202).json(run);
  });

  // Server-sent events (WHATWG HTML, 9.2): the run whenever it changed, until it is over.
  router.get("/runs/:id/events", async (request, response) => {
    if (!(await runs.find(request.params.id))) throw notFound("This run");
    response.set({ "Content-Type": "text/event-stream", "Cache-Control": "no-store" });
    response.flushHeaders();
    let last = "";
    const stop = watch.watch(request.params.id, (run) => {
      const text = JSON.stringify(run);
      if (text !== last) response.write(`data: ${text}\n\n`);
      last = text;
      if (isOver(run.state)) response.end();
    });
    response.on("close", stop);
  });

  router.get("/runs/:id/files/:name", async (request, response) => {
    const file = await runs.file(request.params.id, request.params.name);
    if (!file) throw notFound("This file");
    response.attachment(savedAs(request.query, request.params.name)).type(file.mediaType).send(file.bytes);
  });

  router.get("/runs/:id/archive", async (request, response) => {
    const files = await runs.files(request.params.id);
    if (files.length === 0) throw notFound("This run's files");
    const zipped = zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])));
    response.attachment(savedAs(request.query, "files.zip")).type("application/zip").send(Buffer.from(zipped));
  });

  return router;
}
