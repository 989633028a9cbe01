// A proof's print as pixels, to compare it with another.
import { discs, type Proof } from "@plain-palette/core/proof";

/** On its garment's colour, from the top left corner, at so many pixels to a millimetre. */
export async function drawProof(
  { picture, garment }: Proof,
  { width, height }: { readonly width: number; readonly height: number },
  perMm: number,
): Promise<ImageData> {
  const canvas = new OffscreenCanvas(width, height);
  const context = canvas.getContext("2d", { willReadFrequently: true });
  if (!context) throw new Error("the browser has no room for a picture");
  context.fillStyle = garment.hex;
  context.fillRect(0, 0, width, height);
  context.scale(perMm, perMm);
  context.lineJoin = "round";
  context.lineCap = "round";
  for (const part of picture) {
    context.fillStyle = part.hex;
    context.strokeStyle = part.hex;
    if (part.kind === "thread") {
      context.lineWidth = part.widthMm;
      context.stroke(new Path2D(part.d));
    } else if (part.kind === "fill") context.fill(new Path2D(part.d));
    else context.fill(new Path2D(discs(part.places, part.diameterMm / 2)));
  }
  return context.getImageData(0, 0, width, height);
}
