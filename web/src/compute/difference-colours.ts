// Colours of the difference map, by CIEDE2000.

/** The scale's top: black and white differ by 100, but over 30 nobody asks how much. */
export const DIFFERENCE_TOP = 30;

/** White for none, through yellow and red to near black: lightness falls all the way, so it reads without colour, too. */
export const DIFFERENCE_COLOURS = ["#ffffff", "#fad25a", "#c8323c", "#280a32"];
