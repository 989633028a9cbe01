// Routes of the clients' files: as they came, small, and as pixels.
import { Router } from "express";
import { z } from "zod";
import type { Compute } from "../compute/index.ts";
import { askerOf } from "../doors/index.ts";
import { notFound, ProblemError } from "../problems/index.ts";
import type { JobStore } from "./job-store.ts";

const hashSchema = z.string().regex(/^[0-9a-f]{64}$/);
/** Which page, and how wide shapes are drawn. */
const viewSchema = z
  .object({
    page: z.coerce.number().int().min(1).max(9999).default(1),
    width: z.coerce.number().int().min(16).max(20_000).nullable().default(null),
  })
  .transform(({ page, width }) => ({ page, drawnWidthPx: width }));
/** Bytes that are named by their content never change. */
export const FOREVER = "private, max-age=31536000, immutable";

export function artworkRoutes(jobs: JobStore, compute: Compute): Router {
  const router = Router();

  router.get("/artworks/:hash/file", async (request, response) => {
    const bytes = await jobs.artworkBytes(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    // Never shown by the browser itself: a client's SVG is untrusted.
    response
      .set({ "Cache-Control": FOREVER, "Content-Disposition": "attachment" })
      .type("application/octet-stream")
      .send(bytes);
  });

  router.get("/artworks/:hash/thumbnail", async (request, response) => {
    const bytes = await jobs.thumbnail(hashSchema.parse(request.params.hash));
    if (!bytes) throw notFound("The artwork");
    response.set("Cache-Control", FOREVER).type("image/webp").send(bytes);
  });

  // Raw pixels, so that the browser computes on exactly the bytes that the server computes on; their size goes before them.
  router.get("/artworks/:hash/pixels", async (request, response) => {
    const hash = hashSchema.parse(request.params.hash);
    const view = viewSchema.parse(request.query);
    const bytes = async () => {
      const found = await jobs.artworkBytes(hash);
      if (!found) throw notFound("The artwork");
      return found;
    };
    const pixels = await compute.pixels({ hash, view, bytes }, askerOf(request, response));
    if (!pixels.ok)
      throw new ProblemError({ title: "The artwork cannot be read", status: 422, detail: pixels.message });
    const { width, height, packed } = pixels.value;
    response
      .set({ "Cache-Control": FOREVER, "Content-Encoding": "gzip", "Picture-Size": `${width}x${height}` })
      .type("application/octet-stream")
      .send(Buffer.from(packed.buffer, packed.byteOffset, packed.byteLength));
  });

  return router;
}
