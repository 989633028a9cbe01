// Fabrics: what cloth does to stitches, as sets of numbers.

export const FABRICS = ["woven", "knit", "fleece", "towel", "cap"] as const;
export type Fabric = (typeof FABRICS)[number];

export interface FabricNumbers {
  /** By how much rows and columns are sewn longer at both ends, mm. */
  readonly pullMm: number;
  /** Between rows of a fill, and between needle points on a rail of satin, mm. */
  readonly spacingMm: number;
  /** Of the lattice under fills, mm: pile has to be held down. */
  readonly latticeMm: number;
}

/** Pull from memory of handbooks (0.2 woven to 0.4 knit and fleece); what else differs is our own. */
export const FABRIC_NUMBERS: Readonly<Record<Fabric, FabricNumbers>> = {
  woven: { pullMm: 0.2, spacingMm: 0.4, latticeMm: 2.5 },
  knit: { pullMm: 0.4, spacingMm: 0.4, latticeMm: 2.5 },
  fleece: { pullMm: 0.4, spacingMm: 0.38, latticeMm: 2 },
  towel: { pullMm: 0.4, spacingMm: 0.38, latticeMm: 1.5 },
  cap: { pullMm: 0.3, spacingMm: 0.4, latticeMm: 2.5 },
};
