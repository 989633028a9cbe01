// A proof's print as pixels, to compare it with another.
import type { Proof } from "@plain-palette/core/proof";

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
    else {
      const discs = new Path2D();
      for (let i = 0; i + 1 < part.places.length; i += 2) {
        const [x = 0, y = 0] = part.places.slice(i, i + 2);
        discs.moveTo(x + part.diameterMm / 2, y);
        discs.arc(x, y, part.diameterMm / 2, 0, 2 * Math.PI);
      }
      context.fill(discs);
    }
  }
  return context.getImageData(0, 0, width, height);
}
