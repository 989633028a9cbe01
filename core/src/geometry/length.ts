// Physical lengths and the units they are typed in.

/** Units that a shop types. */
export type LengthUnit = "mm" | "cm" | "in" | "pt";

/** A length as it was typed. */
export interface Length {
  readonly value: number;
  readonly unit: LengthUnit;
}

/** Millimetres in each unit: 1 in = 25.4 mm exactly, 1 pt = 1/72 in (ISO 32000-1 user space). */
export const MM_PER_UNIT: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72 };

const NUMBER = /^([-\u2212]?)(?:(?:(\d+)[ -]+)?(\d+) ?\/ ?(\d+)|(\d+(?:[.,]\d+)?|[.,]\d+))/;

/** What people write for a unit; a length in metres is kept in centimetres. */
const WRITTEN_UNITS: Readonly<Record<string, Length>> = {
  mm: { value: 1, unit: "mm" },
  cm: { value: 1, unit: "cm" },
  m: { value: 100, unit: "cm" },
  pt: { value: 1, unit: "pt" },
  ...Object.fromEntries(
    ["in", "inch", "inches", '"', "\u201d", "\u2032\u2032", "''"].map((word) => [word, { value: 1, unit: "in" }]),
  ),
};

/** A number as it is written, signs of fractions in plain figures: "10½" is "10 1/2". */
function spellFractions(text: string): string {
  return text
    .replace(/[\u00bc-\u00be\u2150-\u215e]/g, " $&")
    .normalize("NFKC")
    .replaceAll("\u2044", "/")
    .trim();
}

/**
 * Reads "10.5in", "267 mm", "10 1/2 in", "½ in", "2 m", "1 pt", "4″", "0,3mm"; a bare number is in `bareUnit`. Throws a
 * RangeError that names the text.
 */
export function parseLength(text: string, bareUnit: LengthUnit): Length {
  const spelt = spellFractions(text);
  const [number = "", sign, whole = "0", upper, lower, decimal = ""] = NUMBER.exec(spelt) ?? [];
  const written = WRITTEN_UNITS[spelt.slice(number.length).trim().toLowerCase() || bareUnit];
  const size = upper === undefined ? Number(decimal.replace(",", ".")) : Number(whole) + Number(upper) / Number(lower);
  if (number === "" || !written || !Number.isFinite(size))
    throw new RangeError(`"${text}" is not a length; write it like 10 1/2 in or 267 mm`);
  return { value: (sign ? -size : size) * written.value, unit: written.unit };
}

/** A length in millimetres. */
export function toMm({ value, unit }: Length): number {
  return value * MM_PER_UNIT[unit];
}

/** Millimetres in another unit, with as many decimals as that unit is read in, e.g. "10.5 in". */
export function formatLength(mm: number, unit: LengthUnit): string {
  const decimals = { mm: 2, cm: 2, in: 3, pt: 1 }[unit];
  return `${Number((mm / MM_PER_UNIT[unit]).toFixed(decimals))} ${unit}`;
}
