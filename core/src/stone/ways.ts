// Ways in which stones are set, filled in and split up: what a person chooses from.

export const SET_AS = ["outline", "middle", "fill", "scatter", "none"] as const;
export type SetAs = (typeof SET_AS)[number];

export const PATTERNS = ["hexagons", "squares", "edge"] as const;
export type Pattern = (typeof PATTERNS)[number];

/** One template for all stones, or for each size or colour. */
export const TEMPLATE_SPLITS = ["one", "sizes", "colours"] as const;
export type TemplateSplit = (typeof TEMPLATE_SPLITS)[number];
