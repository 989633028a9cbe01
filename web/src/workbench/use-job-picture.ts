// How a job's result looks, small, for the board: drawn from its shapes once a version is computed and saved.
import { formatHex } from "@plain-palette/core/colour";
import { useEffect, useRef } from "react";
import { api } from "../api/client.ts";
import { type Computed, isCurrent } from "../compute/use-compute.ts";
import { useJob } from "../job/use-job.ts";
import { makePath2D } from "../light-table/pieces.ts";

/** Longest side of the picture, px. */
const SIDE_PX = 480;
/** A pause after which a version is worth a picture, ms. */
const QUIET_MS = 1500;

export function useJobPicture(computed: Computed): void {
  const { traced, reduced, prepared } = computed;
  const isWhole = isCurrent(computed);
  const { id, head } = useJob((state) => state.job);
  const isSaved = useJob((state) => state.save.kind === "saved");
  const drawn = useRef(0);
  useEffect(() => {
    if (!isWhole || !traced || !reduced || !prepared || !isSaved || drawn.current === head) return;
    const timer = setTimeout(async () => {
      drawn.current = head;
      const picture = await drawResult(traced.layers, reduced.spots, prepared.frame);
      // The board has the client's picture until there is one: nothing is lost if this fails.
      if (picture) await api.savePicture(id, head, picture).catch(() => null);
    }, QUIET_MS);
    return () => clearTimeout(timer);
  }, [isWhole, traced, reduced, prepared, isSaved, id, head]);
}

async function drawResult(
  layers: NonNullable<Computed["traced"]>["layers"],
  spots: NonNullable<Computed["reduced"]>["spots"],
  { width, height }: { readonly width: number; readonly height: number },
): Promise<Blob | null> {
  const scale = SIDE_PX / Math.max(width, height);
  const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
  const context = canvas.getContext("2d");
  if (!context) return null;
  context.scale(scale, scale);
  context.lineWidth = 0.6 / scale;
  const inks = new Map(spots.filter(({ role }) => role === "ink").map((spot) => [spot.id, formatHex(spot.rgb)]));
  for (const { fills } of layers)
    for (const { spotId, paths } of fills) {
      const colour = inks.get(spotId);
      if (colour === undefined) continue;
      const path = makePath2D(paths, true);
      context.fillStyle = context.strokeStyle = colour;
      context.fill(path, "evenodd");
      // Abutting shapes overlap a little, so that no hairline of the garment shows between them.
      context.stroke(path);
    }
  return canvas.convertToBlob({ type: "image/webp", quality: 0.85 });
}
