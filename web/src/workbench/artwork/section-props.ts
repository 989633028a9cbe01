import type { Ask, Computed } from "../../compute/use-compute.ts";
import type { ChangeDesk, Desk } from "./desk.ts";

/** What every section works with. */
export interface SectionProps {
  readonly computed: Computed;
  readonly ask: Ask;
  readonly desk: Desk;
  readonly change: ChangeDesk;
  /** Millimetres to an upright pixel on the garment. */
  readonly mmPerPx: number;
}
