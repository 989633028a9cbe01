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

const WRITTEN = /^\s*([-\u2212]?(?:[0-9]+(?:[.,][0-9]+)?|[.,][0-9]+))\s*(mm|cm|in|inch|inches|"|pt)?\s*$/i;

/** Reads "10.5in", "267 mm", "1 pt", `4"`, "0,3mm"; a bare number is in `bareUnit`. Throws a RangeError that names the text. */
export function parseLength(text: string, bareUnit: LengthUnit): Length {
  const match = WRITTEN.exec(text);
  if (!match) throw new RangeError(`"${text}" is not a length; write it like 10.5in or 267 mm`);
  const word = (match[2] ?? bareUnit).toLowerCase();
  const unit = word === '"' || word.startsWith("inch") ? "in" : (word as LengthUnit);
  return { value: Number(match[1].replace(",", ".").replace("\u2212", "-")), unit };
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
