// The shelf of the demo's shop.
import type { Film, KeptStones, Stock, StockKind } from "@plain-palette/core/shelf";
import { STONE_SIZES } from "@plain-palette/core/trade";

/** What Quayside Print Room, the invented shop of the demo, has in stock: kind, code, name, colour, detail. */
const STOCK: readonly (readonly [StockKind, string, string, string, string])[] = [
  ["ink", "Q-001", "Chalk white", "#fbfaf5", "covers dark garments, flash after"],
  ["ink", "Q-002", "Slack tide", "#f2efe4", "cream"],
  ["ink", "Q-010", "Soot", "#16161a", "prints last"],
  ["ink", "Q-020", "Wet slate", "#4a525c", ""],
  ["ink", "Q-021", "Gull grey", "#b9bec2", ""],
  ["ink", "Q-101", "Deep water", "#14304f", ""],
  ["ink", "Q-104", "Harbour teal", "#1f7a8c", ""],
  ["ink", "Q-107", "Shallow", "#58a6b0", ""],
  ["ink", "Q-110", "Clear noon", "#5092d8", ""],
  ["ink", "Q-201", "Signal red", "#d8412f", ""],
  ["ink", "Q-204", "Brick quay", "#9c3328", ""],
  ["ink", "Q-207", "Shell pink", "#f0a7a0", ""],
  ["ink", "Q-301", "Oilskin", "#f2b134", ""],
  ["ink", "Q-304", "Lantern", "#fcd94f", ""],
  ["ink", "Q-307", "Buoy orange", "#ee7a2b", ""],
  ["ink", "Q-401", "Kelp", "#2f5d3a", ""],
  ["ink", "Q-404", "Samphire", "#6fa043", ""],
  ["ink", "Q-501", "Heather", "#6b4c8a", ""],
  ["ink", "Q-601", "Crust", "#8c5a34", ""],
  ["ink", "Q-604", "Rye", "#5a3a26", ""],
  ["transfer-film", "F-01", "Chalk white, matt", "#f8f7f2", "matt"],
  ["transfer-film", "F-02", "Soot, matt", "#1a1a1d", "matt"],
  ["transfer-film", "F-11", "Deep water", "#18345a", ""],
  ["transfer-film", "F-12", "Harbour teal", "#22808f", ""],
  ["transfer-film", "F-21", "Signal red", "#d33b2c", "matt"],
  ["transfer-film", "F-31", "Oilskin", "#f4b53a", ""],
  ["transfer-film", "F-41", "Kelp", "#33623f", "stretches"],
  ["thread", "T-1000", "Salt", "#fdfdf9", "weight 40"],
  ["thread", "T-1010", "Tar", "#121214", "weight 40"],
  ["thread", "T-1120", "Deep water", "#172f52", "weight 40"],
  ["thread", "T-1140", "Harbour teal", "#1d7688", "weight 40"],
  ["thread", "T-1210", "Signal red", "#cf3a2e", "weight 40"],
  ["thread", "T-1310", "Oilskin", "#efae2f", "weight 40"],
  ["thread", "T-1410", "Kelp", "#2d5a38", "weight 40"],
  ["thread", "T-1610", "Crust", "#8a5832", "weight 40"],
  ["stone", "C-01", "Spray", "#f1efe6", "faceted"],
  ["stone", "C-02", "Soot", "#1b1b20", "faceted"],
  ["stone", "C-11", "Night ferry", "#15304f", "faceted"],
  ["stone", "C-12", "Harbour teal", "#1f7a8c", "faceted"],
  ["stone", "C-21", "Port light", "#d7402f", "faceted"],
  ["stone", "C-31", "Oilskin", "#f2b134", "faceted"],
  ["stone", "C-41", "Starboard light", "#1f7a4a", "faceted"],
  ["garment", "G-01", "White", "#ffffff", "crew neck"],
  ["garment", "G-02", "Sailcloth", "#efe9dc", "crew neck"],
  ["garment", "G-10", "Ash", "#c9ccce", "crew neck"],
  ["garment", "G-11", "Slate", "#4b5560", "crew neck"],
  ["garment", "G-19", "Black", "#16161a", "crew neck"],
  ["garment", "G-21", "Night navy", "#1d2a44", "crew neck, hooded"],
  ["garment", "G-24", "Harbour teal", "#1f7a8c", "crew neck"],
  ["garment", "G-31", "Buoy red", "#b93227", "crew neck"],
  ["garment", "G-41", "Kelp", "#2f5d3a", "crew neck"],
  ["garment", "G-61", "Flour sack", "#d9c7a3", "apron"],
];

/** Of its transfer films: roll width, mm, price per metre, and what its press is set to; null: as for all films. */
const FILMS: Readonly<Record<string, readonly [number, number, number | null]>> = {
  "F-01": [508, 7.9, null],
  "F-02": [508, 7.9, null],
  "F-11": [508, 8.6, null],
  "F-12": [508, 8.6, null],
  "F-21": [508, 8.6, null],
  "F-31": [381, 7.2, null],
  "F-41": [305, 9.8, 150],
};

function filmOf(code: string): Film | null {
  const known = FILMS[code];
  if (!known) return null;
  const [rollWidthMm, pricePerMetre, celsius] = known;
  return { rollWidthMm, pricePerMetre, tackS: null, finalS: null, celsius };
}

/** Of its stones: how many there are from SS6 on, size by size; null: not kept in it. */
const STONES: Readonly<Record<string, readonly (number | null)[]>> = {
  "C-01": [4200, 2100, 5700, 1440, 2880, 720, 288, 144],
  "C-02": [1440, null, 2880, null, 1440, 360, null, null],
  "C-11": [900, null, 2300, null, 1100, 210, null, null],
  "C-12": [1440, null, 1440, null, 720, null, null, null],
  "C-21": [2880, 720, 1440, null, 1440, 360, null, null],
  "C-31": [1440, null, 2160, null, 720, 144, null, null],
  "C-41": [720, null, 1440, null, 720, null, null, null],
};

function stonesOf(code: string): KeptStones | null {
  const known = STONES[code];
  return known ? (Object.fromEntries(STONE_SIZES.map((size, i) => [size, known[i] ?? null])) as KeptStones) : null;
}

export const DEMO_STOCK: readonly Stock[] = STOCK.map(([kind, code, name, hex, detail]) => ({
  kind,
  code,
  name,
  colour: { space: "srgb", hex },
  detail,
  film: filmOf(code),
  stones: stonesOf(code),
}));
