// Whether the shop works: the database answers, files can be read, and there is room on the disk.
import type { RequestHandler } from "express";
import type { DataSource } from "typeorm";
import type { Compute } from "../compute/index.ts";
import type { Disk } from "../doors/index.ts";

/** A database that takes longer than this to say one is away, ms. */
const PATIENCE_MS = 2000;

/** 200 while all of it works, else 503; what is known is told either way. */
export function healthRoute(database: DataSource, compute: Compute, disk: Disk): RequestHandler {
  const isThere = async () => {
    const late = new Promise<boolean>((resolve) => setTimeout(resolve, PATIENCE_MS, false).unref());
    return Promise.race([
      late,
      database.query("SELECT 1").then(
        () => true,
        () => false,
      ),
    ]);
  };
  return async (_request, response) => {
    const [hasDatabase, free] = await Promise.all([isThere(), disk.free()]);
    const { reading, making } = compute.state();
    const ok = hasDatabase && reading.processes > 0;
    response
      .status(ok ? 200 : 503)
      .set("Cache-Control", "no-store")
      .json({ ok, database: hasDatabase, reading, making, freeMb: free === null ? null : Math.floor(free / 2 ** 20) });
  };
}
