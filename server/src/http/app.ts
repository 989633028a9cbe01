// The Express application: security headers, API, built web.
import { join } from "node:path";
import { pageAt } from "@plain-palette/contract";
import express, { type Express } from "express";
import compressedFiles from "express-static-gzip";
import type { DataSource } from "typeorm";
import type { Compute } from "../compute/index.ts";
import { type Disk, ownPagesOnly, securityHeaders } from "../doors/index.ts";
import type { JobStore } from "../jobs/index.ts";
import { artworkRoutes, jobRoutes } from "../jobs/index.ts";
import type { MotifStore } from "../motifs/index.ts";
import { motifRoutes } from "../motifs/index.ts";
import type { PlacementStore } from "../placements/index.ts";
import { placementRoutes } from "../placements/index.ts";
import { answerErrors, answerUnknownRoute } from "../problems/index.ts";
import type { MailStore, ProofStore } from "../proofs/index.ts";
import { proofRoutes } from "../proofs/index.ts";
import type { RoomStore } from "../room/index.ts";
import { roomRoutes } from "../room/index.ts";
import type { RunStore } from "../runs/index.ts";
import { runRoutes } from "../runs/index.ts";
import type { ShelfStore } from "../shelf/index.ts";
import { shelfRoutes } from "../shelf/index.ts";
import type { TypefaceStore } from "../typefaces/index.ts";
import { typefaceRoutes } from "../typefaces/index.ts";
import { healthRoute } from "./health.ts";

/** Their names change with what is in them. Beside each lies what it is compressed, made when the application was built. */
const ASSETS: Parameters<typeof compressedFiles>[1] = {
  ...{ enableBrotli: true, orderPreference: ["br"] },
  serveStatic: { immutable: true, maxAge: "1y", fallthrough: false },
};

export interface Services {
  readonly jobs: JobStore;
  readonly runs: RunStore;
  readonly placements: PlacementStore;
  readonly shelf: ShelfStore;
  readonly typefaces: TypefaceStore;
  readonly motifs: MotifStore;
  readonly proofs: ProofStore;
  readonly mails: MailStore;
  readonly room: RoomStore;
  readonly compute: Compute;
  readonly database: DataSource;
  readonly disk: Disk;
  /** How the shop is reached besides its own address and loopback. */
  readonly addresses: readonly string[];
  /** Folder of the built web application, if it is served. */
  readonly webRoot: string | undefined;
}

export function makeApp(services: Services): Express {
  const { jobs, runs, placements, shelf, typefaces, motifs, compute, database, disk, addresses, webRoot } = services;
  const app = express();
  app.disable("x-powered-by");
  app.use(securityHeaders("no-referrer"));
  app.use(ownPagesOnly(addresses));
  app.get("/api/health", healthRoute(database, compute, disk));
  app.use(disk.refuseWhenFull);
  app.use(
    "/api",
    jobRoutes(jobs, compute),
    artworkRoutes(jobs, compute),
    runRoutes(runs, compute),
    placementRoutes(placements),
    shelfRoutes(shelf, compute),
    typefaceRoutes(typefaces, compute),
    motifRoutes(motifs, compute),
    proofRoutes(services),
    roomRoutes(services.room),
  );
  app.use("/api", answerUnknownRoute);
  if (webRoot) {
    app.use("/assets", compressedFiles(join(webRoot, "assets"), ASSETS));
    app.use(express.static(webRoot, { index: false }));
    // Every other address is a screen of the application, which says itself where there is none.
    app.get("/{*screen}", async ({ path }, response) => {
      const page = pageAt(path);
      const isThere = page !== null && (page.job === null || (await jobs.exists(page.job)));
      response
        .status(isThere ? 200 : 404)
        .set("Cache-Control", "no-cache")
        .sendFile(join(webRoot, "index.html"));
    });
  }
  app.use(answerErrors);
  return app;
}
