// Routes of the shop's placements.
import { placementSaveSchema } from "@plain-palette/contract";
import { placementSchema } from "@plain-palette/core/recipe";
import express, { Router } from "express";
import { notFound, ProblemError } from "../problems/index.ts";
import type { PlacementStore } from "./placement-store.ts";

export function placementRoutes(placements: PlacementStore): Router {
  const router = Router();

  router.get("/placements", async (_request, response) => {
    response.json(await placements.list());
  });

  router.post("/placements", express.json(), async (request, response) => {
    response.status(201).json(await placements.add(placementSchema.parse(request.body)));
  });

  router.put("/placements/:id", express.json(), async (request, response) => {
    const { version, ...placement } = placementSaveSchema.parse(request.body);
    const change = await placements.change(request.params.id, placement, version);
    if (!change) throw notFound("This placement");
    if (!change.isTaken)
      throw new ProblemError({
        title: `Somebody else changed "${change.stored.name}" meanwhile`,
        status: 409,
        kept: "Theirs is kept; yours is still in the form.",
        cure: "Open the list again to see theirs, then change it once more.",
      });
    response.json(change.stored);
  });

  router.delete("/placements/:id", async (request, response) => {
    await placements.remove(request.params.id);
    response.status(204).end();
  });

  return router;
}
