// How well colours are found on flat drawings with known colours: exact counts, nearest differences, and every miss by name.
import { ciede2000, formatHex, rgbToLab } from "@plain-palette/core/colour";
import type { Raster } from "@plain-palette/core/raster";
import { type Findings, findColours, reduceColours, type Spot, UNDECIDED } from "@plain-palette/core/reduce";
import { type Icon, renderIcon, throughJpeg } from "./icons.ts";

/** A true colour is found if a spot lies within this CIEDE2000. */
const FOUND = 5;

interface Miss {
  readonly name: string;
  readonly reason: string;
}

/** Prints the figures for one kind of input. */
async function measureKind(icons: readonly Icon[], kind: string, make: (icon: Icon) => Promise<Raster> | Raster) {
  const misses: Miss[] = [];
  const incomplete: Miss[] = [];
  const worst: number[] = [];
  for (const icon of icons) {
    const findings = findColours(await make(icon));
    const { spots } = reduceColours(findings, UNDECIDED);
    worst.push(Math.max(...icon.colours.map((colour) => nearest(colour.rgb, spots))));
    if (spots.length !== icon.colours.length) misses.push({ name: icon.name, reason: sayMiss(icon, spots, findings) });
    const given = reduceColours(findings, { ...UNDECIDED, count: icon.colours.length }).spots;
    const lost = icon.colours.filter((colour) => nearest(colour.rgb, given) > FOUND);
    if (lost.length > 0) incomplete.push({ name: icon.name, reason: `lost ${lost.map(sayColour).join(", ")}` });
  }
  worst.sort((a, b) => a - b);
  const share = (part: number) => `${((part / icons.length) * 100).toFixed(1)} %`;
  const line = {
    exact: share(icons.length - misses.length),
    "worst colour, median": worst[worst.length >> 1].toFixed(2),
    "number given, all found": share(icons.length - incomplete.length),
  };
  return { kind, line, misses, incomplete };
}

const nearest = (rgb: Spot["rgb"], spots: readonly Spot[]) =>
  Math.min(...spots.map((spot) => ciede2000(rgbToLab(spot.rgb), rgbToLab(rgb))));

const sayColour = ({ rgb, share }: Icon["colours"][number]) => `${formatHex(rgb)} (${(share * 100).toFixed(2)} %)`;

function sayMiss(icon: Icon, spots: readonly Spot[], { opaquePx }: Findings): string {
  const lost = icon.colours.filter((colour) => nearest(colour.rgb, spots) > FOUND).map(sayColour);
  const taken = new Set<Spot>();
  for (const { rgb } of icon.colours) {
    const best = [...spots].sort((a, b) => nearest(rgb, [a]) - nearest(rgb, [b]))[0];
    if (best && nearest(rgb, [best]) <= FOUND) taken.add(best);
  }
  const invented = spots
    .filter((spot) => !taken.has(spot))
    .map((spot) => sayColour({ rgb: spot.rgb, share: spot.areaPx / opaquePx }));
  const parts = [`${spots.length} for ${icon.colours.length}`];
  if (lost.length > 0) parts.push(`lost ${lost.join(", ")}`);
  if (invented.length > 0) parts.push(`invented ${invented.join(", ")}`);
  return parts.join("; ");
}

/** Measures finding on PNG at 512 and 128 px and on JPEG at 512, and prints all misses. */
export async function measureColours(icons: readonly Icon[]): Promise<void> {
  const kinds = [
    await measureKind(icons, "PNG 512 px", (icon) => renderIcon(icon.svg, 512)),
    await measureKind(icons, "PNG 128 px", (icon) => renderIcon(icon.svg, 128)),
    await measureKind(icons, "JPEG 75, 512 px", (icon) => throughJpeg(renderIcon(icon.svg, 512), 75)),
  ];
  console.table(Object.fromEntries(kinds.map(({ kind, line }) => [kind, line])));
  for (const { kind, misses, incomplete } of kinds) {
    console.log(`\n${kind}: ${misses.length} counts missed`);
    for (const { name, reason } of misses) console.log(`  ${name}: ${reason}`);
    if (incomplete.length > 0) console.log(`${kind}, number given: ${incomplete.length} incomplete`);
    for (const { name, reason } of incomplete) console.log(`  ${name}: ${reason}`);
  }
}
