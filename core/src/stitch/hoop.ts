// Hoops: the frame that cloth is held in, and whether a design goes into it.
import type { StitchSettings } from "./settings.ts";

export interface Hoop {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The shop's hoops, as it writes them down. */
export function readHoops(text: string): readonly Hoop[] {
  return text.split(",").map((one) => {
    const [widthMm = 0, heightMm = 0] = one.split("x").map(Number);
    return { widthMm, heightMm };
  });
}

export interface HoopChoice extends Hoop {
  /** Whether the design lies in it turned by a quarter. */
  readonly isTurned: boolean;
  readonly fits: boolean;
}

/** The chosen hoop, or the smallest of the shop's that holds the design, turned or not; the largest if none does. */
export function chooseHoop(widthMm: number, heightMm: number, { hoop, machine }: StitchSettings): HoopChoice {
  const lay = (one: Hoop): HoopChoice => {
    const upright = widthMm <= one.widthMm && heightMm <= one.heightMm;
    const turned = heightMm <= one.widthMm && widthMm <= one.heightMm;
    return { ...one, isTurned: !upright && turned, fits: upright || turned };
  };
  if (hoop) return lay(hoop);
  const bySize = readHoops(machine.hoops)
    .map(lay)
    .sort((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm);
  return bySize.find(({ fits }) => fits) ?? bySize[bySize.length - 1];
}
