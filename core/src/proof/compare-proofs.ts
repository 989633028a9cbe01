// What is different between what the client saw and what they would see now, in words.
import { formatLength } from "../geometry/index.ts";
import type { Proof } from "./proof.ts";

/** Lengths that differ by less are the same, mm. */
const SAME_MM = 0.005;

/** Each difference by name; none where the client would see the same. */
export function compareProofs(before: Proof, now: Proof): string[] {
  const out: string[] = [];
  const length = (mm: number) => formatLength(mm, now.unit);
  const isSame = (a: number, b: number) => Math.abs(a - b) < SAME_MM;
  const size = ({ widthMm, heightMm }: Proof) => `${length(widthMm)} × ${length(heightMm)}`;
  if (!isSame(before.widthMm, now.widthMm) || !isSame(before.heightMm, now.heightMm))
    out.push(`Size: ${size(before)}, now ${size(now)}`);
  if (before.garment.hex !== now.garment.hex) out.push(`Garment: ${before.garment.name}, now ${now.garment.name}`);
  const [was, is] = [before.placement, now.placement];
  if (was.name !== is.name || was.shownOn !== is.shownOn) out.push(`Where: ${was.name}, now ${is.name}`);
  else if (!isSame(was.belowMm, is.belowMm) || !isSame(was.asideMm, is.asideMm)) out.push("Where on it: moved");
  if (before.madeWith !== now.madeWith) out.push(`Made with: ${before.madeWith}, now ${now.madeWith}`);
  if (before.pieces !== now.pieces) out.push(`Pieces: ${before.pieces}, now ${now.pieces}`);
  if (before.price !== now.price) out.push(`Price: ${before.price ?? "not shown"}, now ${now.price ?? "not shown"}`);
  out.push(...compareSpots(before, now));
  if (before.counts.join() !== now.counts.join())
    out.push(`${before.counts.join(", ") || "Nothing counted"}, now ${now.counts.join(", ") || "nothing counted"}`);
  if (JSON.stringify(before.picture.map(bare)) !== JSON.stringify(now.picture.map(bare))) out.push("Shapes: changed");
  return out;
}

function compareSpots({ spots: before }: Proof, { spots: now }: Proof): string[] {
  const gone = before.filter(({ id }) => !now.some((spot) => spot.id === id)).map(({ name }) => `${name}: left out`);
  return [
    ...gone,
    ...now.flatMap((spot) => {
      const was = before.find(({ id }) => id === spot.id);
      if (!was) return [`${spot.name}: new`];
      const said: string[] = [];
      if (was.hex !== spot.hex) said.push(`${was.hex}, now ${spot.hex}`);
      if (was.name !== spot.name) said.push(`now called ${spot.name}`);
      if (was.stock !== spot.stock)
        said.push(`made with ${was.stock ?? "nothing chosen"}, now ${spot.stock ?? "nothing chosen"}`);
      if (was.madeWith !== spot.madeWith) said.push(`${was.madeWith}, now ${spot.madeWith}`);
      return said.length > 0 ? [`${was.name}: ${said.join("; ")}`] : [];
    }),
  ];
}

/** A part without its colour, which is told by the spots. */
function bare(part: Proof["picture"][number]): unknown {
  return { ...part, hex: "" };
}
