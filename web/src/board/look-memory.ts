// How the board was looked at last in this browser: as cards or a list, and in which order.
import { boardSearchSchema } from "@plain-palette/contract";
import { z } from "zod";

const KEY = "board-look";
const lookSchema = z.object({
  as: z.enum(["cards", "list"]).catch("cards"),
  sort: boardSearchSchema.shape.sort.catch("newest"),
});
type KeptLook = z.infer<typeof lookSchema>;

export function keptLook(): KeptLook {
  try {
    return lookSchema.parse(JSON.parse(localStorage.getItem(KEY) ?? "{}"));
  } catch {
    return lookSchema.parse({});
  }
}

export function keepLook({ as, sort }: KeptLook): void {
  try {
    localStorage.setItem(KEY, JSON.stringify({ as, sort }));
  } catch {
    // A browser that keeps nothing: it is chosen again.
  }
}
