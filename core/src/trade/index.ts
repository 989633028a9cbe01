// The trade's own numbers, where several parts of the program go by them. A shop's settings go before; of each: where it is from.

export { diameterOf, STONE_SIZES, type StoneSize } from "./stone-sizes.ts";

/** Effective resolution, dpi: from here on it is good, and under the lower one a warning is due (common practice, no source). */
export const GOOD_DPI = 300;
export const LOW_DPI = 150;

/** Above this it is not a spot-colour job (common practice, no source). */
export const MOST_SPOTS = 16;
/** Under this share of the picture shading is nothing to speak of (our own). */
export const LEAST_SHADING = 0.005;

/** Thinnest positive line and open line that print, mm: from memory of screen-printing handbooks. */
export const THIN_LINE_MM = 0.35;
export const THIN_GAP_MM = 0.5;
/** Lowest capitals that come out, mm: printed, cut (weeded by hand; both common practice, no source), sewn (from memory), set in stones (five of the smallest in a row; our own reckoning). */
export const SCREEN_LETTERS_MM = 2.5;
export const CUT_LETTERS_MM = 6;
export const SEWN_LETTERS_MM = 5;
export const STONE_LETTERS_MM = 12;
/** Spread of the lighter ink into the darker, and how far a base is pulled in, mm: from memory of screen-printing handbooks. */
export const TRAP_MM = 0.3;
export const CHOKE_MM = 0.35;
/** How far a layer of transfer film runs on under the next, mm; the thinnest gap that is weeded (from memory). */
export const LAP_MM = 0.5;
export const CUT_GAP_MM = 0.8;
/** How near to its place a cut has to be, mm (our own: what a roll cutter repeats is a fifth of it, from memory). */
export const CUT_TOLERANCE_MM = 0.05;
/** Thinnest strip of transfer film that cuts, and the width under which an island comes off in weeding, mm (from memory). */
export const CUT_STRIP_MM = 1;
export const CUT_ISLAND_MM = 2;
/** Widest of the usual rolls of transfer film, mm (305 and 381 are others); common practice, no source. */
export const ROLL_WIDTH_MM = 508;
/** A roll cutter's usual speed, mm/s, and what lifting the blade and going on takes, s (from memory). */
export const CUT_MM_PER_S = 200;
export const LIFT_S = 0.25;
/** Pressing: seconds a layer is tacked, seconds for the whole at the end, degrees Celsius (common practice, no source). */
export const TACK_S = 5;
export const FINAL_S = 15;
export const PRESS_CELSIUS = 165;
/** Films on each other that still feel soft (from memory). */
export const MOST_FILMS = 3;
/** Full front, adult, inches (common practice, no source). */
export const FULL_FRONT_IN = 10.5;

/** Hoops, mm: width x height; the last is a cap's (from memory). */
export const HOOPS = "100x100, 130x180, 200x200, 130x60";
/** An embroidery machine's speed, and what a change of colour and a trim take, s (from memory). */
export const STITCHES_PER_MINUTE = 800;
export const CHANGE_S = 10;
export const TRIM_S = 6;
/** Price of a thousand stitches, in the shop's currency (our own, to begin with). */
export const PER_THOUSAND = 1.2;
/** Stitches in a square millimetre from which on cloth is cut (from memory). */
export const MOST_PER_MM2 = 4;
/** Full layers of thread that cloth bears on each other: with three it is cut (from memory). */
export const MOST_LAYERS = 2;

/** Gaps between stones, mm: what is aimed at, and the least (common practice, no source: 0.3 to 0.5). */
export const STONE_GAP_MM = 0.4;
export const LEAST_STONE_GAP_MM = 0.3;
/** Stones that are lost on the way, in a hundred (our own, to begin with). */
export const STONE_LOSS_PERCENT = 5;
/** Prices of a hundred stones by size, in the shop's currency (our own, to begin with). */
export const STONE_PRICES = "SS6 0.9, SS8 1, SS10 1.1, SS12 1.3, SS16 1.7, SS20 2.4, SS30 4.5, SS34 6";
