// What a plan amounts to: stitches, changes, trims, metres of thread, minutes, money.
import { lengthOf } from "../geometry/index.ts";
import { COMMANDS, type StitchPlan } from "./plan.ts";
import type { StitchSettings } from "./settings.ts";

/** Thread that goes through the cloth and back at each stitch, mm; and what the bobbin gives for a metre from above (from memory). */
const THROUGH_MM = 1;
const BOBBIN_SHARE = 0.35;

export interface ColourCount {
  readonly spotId: string;
  readonly name: string;
  readonly stitches: number;
  readonly threadM: number;
}

export interface PlanCount {
  readonly stitches: number;
  readonly jumps: number;
  readonly trims: number;
  readonly changes: number;
  readonly minutes: number;
  readonly price: number;
  readonly bobbinM: number;
  /** In the order in which they are threaded; one that is threaded twice stands once. */
  readonly colours: readonly ColourCount[];
}

/** Counts of a plan on one machine. Speed is a mean: it leaves ramps to who simulates the machine. */
export function countPlan(plan: StitchPlan, { machine }: Pick<StitchSettings, "machine">): PlanCount {
  const of = COMMANDS.map(() => 0);
  const stitches = plan.colours.map(() => 0);
  const lengthMm = plan.colours.map(() => 0);
  plan.command.forEach((code, i) => {
    of[code]++;
    if (COMMANDS[code] !== "stitch") return;
    const colour = plan.colour[i];
    stitches[colour]++;
    const isOn = i > 0 && COMMANDS[plan.command[i - 1]] === "stitch";
    lengthMm[colour] += THROUGH_MM + (isOn ? lengthOf(plan.x[i] - plan.x[i - 1], plan.y[i] - plan.y[i - 1]) : 0);
  });
  const [count, jumps, trims, changes] = of;
  const seconds = (count / machine.stitchesPerMinute) * 60 + changes * machine.changeS + trims * machine.trimS;
  const threadM = lengthMm.reduce((sum, mm) => sum + mm, 0) / 1000;
  return {
    ...{ stitches: count, jumps, trims, changes },
    minutes: seconds / 60,
    price: (count / 1000) * machine.perThousand,
    bobbinM: threadM * BOBBIN_SHARE,
    colours: plan.colours.flatMap(({ spotId, name }, i) =>
      stitches[i] > 0 ? [{ spotId, name, stitches: stitches[i], threadM: lengthMm[i] / 1000 }] : [],
    ),
  };
}
