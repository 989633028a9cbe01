// sRGB: hex notation, and the transfer function between encoded and linear light.

/** An encoded sRGB colour, three integers 0..255. */
export type Rgb = readonly [number, number, number];

const HEX = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i;

/** Reads `#rgb` or `#rrggbb` (the `#` may be missing). Throws a RangeError that names the text. */
export function parseHex(text: string): Rgb {
  const digits = HEX.exec(text.trim())?.[1];
  if (digits === undefined) throw new RangeError(`"${text}" is not a colour; write it as #rrggbb`);
  const six = digits.length === 3 ? digits.replace(/./g, "$&$&") : digits;
  const value = Number.parseInt(six, 16);
  return [value >> 16, (value >> 8) & 255, value & 255];
}

/** Lower-case `#rrggbb`; channels are rounded and clamped to 0..255. */
export function formatHex([r, g, b]: Rgb): string {
  const byte = (v: number) =>
    Math.min(255, Math.max(0, Math.round(v)))
      .toString(16)
      .padStart(2, "0");
  return `#${byte(r)}${byte(g)}${byte(b)}`;
}

/** Linear light 0..1 of an encoded channel 0..255 (IEC 61966-2-1). */
export function decodeChannel(encoded: number): number {
  const v = encoded / 255;
  return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
}

/** Linear light of every encoded byte: pixels are bytes, so the power is taken 256 times, not per pixel. */
export const LINEAR_OF_BYTE: Float64Array = Float64Array.from({ length: 256 }, (_, byte) => decodeChannel(byte));

/** Encoded channel, rounded and clamped to 0..255, of linear light 0..1 (IEC 61966-2-1). */
export function encodeChannel(linear: number): number {
  const v = linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
  return Math.min(255, Math.max(0, Math.round(v * 255)));
}
