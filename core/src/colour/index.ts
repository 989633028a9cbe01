export { ciede2000 } from "./ciede2000.ts";
export { describeColour, nameChoices } from "./colour-name.ts";
export { type Lab, labD50ToD65, labToRgb, rgbToLab } from "./lab.ts";
export { type Oklab, rgbToOklab } from "./oklab.ts";
export { decodeChannel, formatHex, LINEAR_OF_BYTE, parseHex, type Rgb } from "./srgb.ts";
