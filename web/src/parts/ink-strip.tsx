// An ink strip: swatch and chart in one, its length the coverage.
import { formatHex, type Rgb, rgbToLab } from "@plain-palette/core/colour";

/** `share` and `largest` are shares of the art, 0..1; the largest strip fills the width. */
export function InkStrip({
  rgb,
  share,
  largest,
  isFaint = false,
}: {
  rgb: Rgb;
  share: number;
  largest: number;
  isFaint?: boolean;
}) {
  // Square root: a hair-thin outline must still be a strip that can be seen.
  const width = largest > 0 ? Math.max(4, Math.sqrt(share / largest) * 100) : 4;
  const isPale = rgbToLab(rgb)[0] > 90;
  return (
    <span
      className="block h-3.5 w-full bg-[repeating-linear-gradient(90deg,transparent_0_9.9%,var(--color-rule)_9.9%_10%)]"
      aria-hidden="true"
    >
      <span
        className={`block h-full ${isPale ? "border border-soft/50" : ""} ${isFaint ? "opacity-40" : ""}`}
        style={{ width: `${width}%`, background: formatHex(rgb) }}
      />
    </span>
  );
}

/** A share as a percentage with as many digits as it needs. */
export function percent(share: number): string {
  const value = share * 100;
  return `${value >= 10 ? value.toFixed(0) : value >= 1 ? value.toFixed(1) : value.toFixed(2)} %`;
}
