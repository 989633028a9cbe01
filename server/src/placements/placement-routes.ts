// Routes of the shop's placements.
import { ownIdSchema, placementSaveSchema, type ShopPlacement, seenVersionSchema } from "@plain-palette/contract";
import { placementSchema } from "@plain-palette/core/recipe";
import express, { Router } from "express";
import { notFound, ProblemError } from "../problems/index.ts";
import type { PlacementChange, PlacementStore } from "./placement-store.ts";

const newPlacementSchema = placementSchema.extend(ownIdSchema.shape);

export function placementRoutes(placements: PlacementStore): Router {
  const router = Router();

  router.get("/placements", async (_request, response) => {
    response.json(await placements.list());
  });

  router.post("/placements", express.json(), async (request, response) => {
    const { id, ...placement } = newPlacementSchema.parse(request.body);
    response.status(201).json(await placements.add(placement, id));
  });

  router.put("/placements/:id", express.json(), async (request, response) => {
    const { version, ...placement } = placementSaveSchema.parse(request.body);
    const change = await placements.change(request.params.id, placement, version);
    response.json(taken(change));
  });

  router.get("/placements/put-away", async (_request, response) => {
    response.json(await placements.listPutAway());
  });
  router.delete("/placements/:id", async (request, response) => {
    const { version } = seenVersionSchema.parse(request.query);
    response.json(taken(await placements.putAway(request.params.id, version, true)));
  });
  router.post("/placements/:id/return", async (request, response) => {
    const { version } = seenVersionSchema.parse(request.query);
    response.json(taken(await placements.putAway(request.params.id, version, false)));
  });

  return router;
}

function taken(change: PlacementChange | null): ShopPlacement {
  if (!change) throw notFound("This placement");
  if (change.isTaken) return change.stored;
  throw new ProblemError({
    title: `Somebody else changed "${change.stored.name}" meanwhile`,
    status: 409,
    kept: "Theirs is kept.",
    cure: "Open the list again to see theirs, then change it once more.",
  });
}
