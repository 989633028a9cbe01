import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { ciede2000, formatHex, parseHex, type Rgb, rgbToLab } from "../colour/index.ts";
import { makeRaster, NONE } from "../raster/index.ts";
import { drawSvg, paint } from "../testing/pictures.test.support.ts";
import { type Findings, findColours, reduceColours, UNDECIDED } from "./index.ts";

const hexes = (findings: Findings) => findings.found.map((colour) => formatHex(colour.rgb)).sort();

function nearestDifference(findings: Findings, hex: string): number {
  const wanted = rgbToLab(parseHex(hex));
  return Math.min(...findings.found.map((colour) => ciede2000(rgbToLab(colour.rgb), wanted)));
}

describe("finding the artist's colours", () => {
  it("finds exactly those of flat art, none invented along anti-aliased edges", () => {
    const findings = findColours(
      drawSvg(
        256,
        '<circle cx="100" cy="120" r="80" fill="#d8412f"/><path d="M40 30L220 90L150 230Z" fill="#14304f"/><rect x="150" y="20" width="70" height="60" fill="#f2b134" transform="rotate(20 180 50)"/>',
      ),
    );
    expect(hexes(findings)).toEqual(["#14304f", "#d8412f", "#f2b134", "#ffffff"]);
  });

  it("never gives an edge between red and white to a pink that is elsewhere", () => {
    const pink = "#f4a3a0";
    const findings = findColours(
      drawSvg(
        200,
        `<circle cx="60" cy="100" r="45" fill="#e02020"/><rect x="140" y="60" width="50" height="80" fill="${pink}"/>`,
      ),
    );
    const index = findings.found.findIndex((colour) => formatHex(colour.rgb) === pink);
    expect(index).toBeGreaterThanOrEqual(0);
    for (let y = 0; y < 200; y++)
      for (let x = 0; x < 120; x++) expect(findings.labels.data[y * 200 + x]).not.toBe(index);
  });

  it("finds a hair-thin outline that has no flat pixel", () => {
    const findings = findColours(
      drawSvg(
        300,
        '<circle cx="150" cy="150" r="110" fill="#f2efe4"/><circle cx="150" cy="150" r="120" fill="none" stroke="#1a6b3c" stroke-width="1.2"/>',
      ),
    );
    expect(findings.found).toHaveLength(3);
    expect(nearestDifference(findings, "#1a6b3c")).toBeLessThan(12);
  });

  it("keeps two near tones of very different area apart", () => {
    const findings = findColours(
      drawSvg(
        256,
        '<rect width="256" height="200" fill="#1f7a8c"/><rect x="20" y="20" width="24" height="18" fill="#2f8ea0"/>',
      ),
    );
    expect(hexes(findings)).toEqual(["#1f7a8c", "#2f8ea0", "#ffffff"]);
  });

  it("does not take faint lines that renderers leave between shapes for inks", () => {
    // Cream laid over red laid over cream: a fringe of both along the seam.
    const findings = findColours(
      drawSvg(
        256,
        '<rect width="256" height="256" fill="#f2efe4"/><path d="M60.4 20L80.7 236H176.3L196.6 20Z" fill="#d8412f"/><path d="M66 80H190.9L184 150H72.7Z" fill="#f2efe4"/>',
      ),
    );
    expect(hexes(findings)).toEqual(["#d8412f", "#f2efe4"]);
  });

  it("does not take the rings and rims of a JPEG (encoded by libvips) for colours", async () => {
    const art =
      '<rect width="300" height="300" fill="#f2efe4"/><circle cx="120" cy="130" r="90" fill="#d8412f"/><path d="M30 30L270 90L150 280Z" fill="#14304f"/><rect x="180" y="180" width="80" height="60" fill="#3f9b5b" transform="rotate(14 220 210)"/>';
    const clean = drawSvg(300, art);
    for (const quality of [75, 85, 92]) {
      const bytes = await sharp(clean.data, { raw: { width: 300, height: 300, channels: 4 } })
        .removeAlpha()
        .jpeg({ quality })
        .toBuffer();
      const pixels = await sharp(bytes).ensureAlpha().raw().toBuffer();
      const findings = findColours(makeRaster(300, 300, new Uint8ClampedArray(pixels)));
      expect(findings.found).toHaveLength(4);
      for (const hex of ["#f2efe4", "#d8412f", "#14304f", "#3f9b5b"])
        expect(nearestDifference(findings, hex)).toBeLessThan(2);
    }
  });

  it("gives a picture of 60 000 colours a bounded number and says how many to print", () => {
    const findings = findColours(
      paint(300, 200, (x, y) => [Math.round((x / 299) * 255), Math.round((y / 199) * 255), (x * 7 + y * 13) % 256]),
    );
    const { spots, proposal } = reduceColours(findings, UNDECIDED);
    expect(findings.found.length).toBeLessThanOrEqual(48);
    expect(spots).toHaveLength(proposal.count);
    expect(proposal.count).toBeLessThanOrEqual(16);
  });

  it("leaves transparent pixels without a colour, and an empty picture without any", () => {
    const clear = paint(8, 8, () => [10, 20, 30]);
    clear.data.fill(0);
    const findings = findColours(clear);
    expect(findings.found).toEqual([]);
    expect(findings.labels.data.every((label) => label === NONE)).toBe(true);
    expect(reduceColours(findings, UNDECIDED).spots).toEqual([]);
  });

  it("takes a single pixel for what it is", () => {
    const findings = findColours(paint(1, 1, () => [200, 30, 40]));
    expect(hexes(findings)).toEqual(["#c81e28"]);
  });
});

describe("reducing to spots", () => {
  const four = (): Findings => {
    const columns: Rgb[] = [
      [20, 48, 79],
      [30, 60, 92],
      [216, 65, 47],
      [242, 239, 228],
    ];
    return findColours(paint(160, 60, (x) => columns[Math.floor(x / 40)]));
  };

  it("merges the nearest pair first when one fewer is wanted", () => {
    const findings = four();
    expect(findings.found).toHaveLength(4);
    const { spots } = reduceColours(findings, { ...UNDECIDED, count: 3 });
    expect(spots.map((spot) => spot.id)).toContain("d8412f");
    expect(spots.find((spot) => spot.members.length === 2)?.members).toEqual(
      expect.arrayContaining(["14304f", "1e3c5c"]),
    );
  });

  it("keeps a merge made by hand whatever the number", () => {
    const merges = [{ from: "d8412f", into: "f2efe4" }];
    for (const count of [null, 3, 2]) {
      const { spots } = reduceColours(four(), { ...UNDECIDED, count, merges });
      expect(spots.find((spot) => spot.members.includes("d8412f"))?.members).toContain("f2efe4");
    }
  });

  it("never gives two spots one name, nor a spot a name that a RIP takes for a process ink", () => {
    const { spots } = reduceColours(four(), {
      ...UNDECIDED,
      count: 4,
      decided: { "14304f": { name: "Black" }, "1e3c5c": { name: "black" }, d8412f: { name: "Underbase" } },
    });
    const names = spots.map((spot) => spot.name.toLowerCase());
    expect(new Set(names).size).toBe(4);
    for (const reserved of ["black", "underbase", "cyan", "all"]) expect(names).not.toContain(reserved);
  });

  it("ignores a decision on a colour that is no longer there", () => {
    const { spots } = reduceColours(four(), {
      ...UNDECIDED,
      merges: [{ from: "nowhere", into: "d8412f" }],
      decided: { nowhere: { role: "drop" } },
    });
    expect(spots.every((spot) => spot.role === "ink")).toBe(true);
  });
});
