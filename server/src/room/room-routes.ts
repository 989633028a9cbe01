// Routes of what takes room.
import { Router } from "express";
import type { RoomStore } from "./room-store.ts";

export function roomRoutes(room: RoomStore): Router {
  const router = Router();

  router.get("/room", async (_request, response) => {
    response.json(await room.measure());
  });

  router.post("/room/tidy", async (_request, response) => {
    response.json(await room.tidy());
  });

  return router;
}
