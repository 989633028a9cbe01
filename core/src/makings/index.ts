// How each process makes designs. Apart from what they are: whoever computes nothing need not have it.
import type { Making } from "../process/index.ts";
import { screensMaking } from "../screens/index.ts";
import { stitchesMaking } from "../stitch/index.ts";
import { stonesMaking } from "../stone/index.ts";
import { transferMaking } from "../transfer/index.ts";

const makings = new Map([screensMaking, transferMaking, stitchesMaking, stonesMaking].map((one) => [one.id, one]));

/** One more, of a process that was added. */
export function addMaking(making: Making): void {
  makings.set(making.id, making);
}

/** How this process makes designs; throws where nobody said. */
export function makingOf(id: string): Making {
  const found = makings.get(id);
  if (!found) throw new RangeError(`nobody says how "${id}" makes a design`);
  return found;
}
