/** Where lines of lettering stand to their anchor. */
export const ALIGNMENTS = ["left", "middle", "right"] as const;
export type Alignment = (typeof ALIGNMENTS)[number];
