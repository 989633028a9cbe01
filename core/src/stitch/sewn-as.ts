/** Ways in which an area is sewn: what a person chooses from. */
export const SEWN_AS = ["fill", "satin", "run", "bean", "applique", "none"] as const;
export type SewnAs = (typeof SEWN_AS)[number];
