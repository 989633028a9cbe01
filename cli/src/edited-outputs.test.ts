// Every file follows an edit by hand: shapes in four formats and plates, read by independent programs.
import { execFile } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { makeRecipe } from "@plain-palette/core/recipe";
import DxfParser, { type ICircleEntity } from "dxf-parser";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type PlatePicture, readPlates } from "./plates.test.support.ts";

const run = promisify(execFile);
const ROOT = new URL("../..", import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), "plain-palette-edited-"));
const [WIDTH, HEIGHT] = [400, 300];
/** A red and a navy half, a gold disc over their seam, a small navy square. */
const ART = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${HEIGHT}"><rect width="400" height="300" fill="#d8412f"/><rect x="200" width="200" height="300" fill="#14304f"/><circle cx="200" cy="150" r="50" fill="#f2b134"/><rect x="40" y="40" width="40" height="40" fill="#14304f"/></svg>`;

const NAMES = { red: "#d8412f", navy: "#14304f", gold: "#f2b134" } as const;
const line = (x0: number, y0: number, x1: number, y1: number) => [x0, y0, x0, y0, x1, y1, x1, y1];

/** Places, and what is there after the edits; null: nothing. */
const THERE: readonly (readonly [number, number, keyof typeof NAMES | null])[] = [
  // The hole through the disc, the seam's foot moved, the square moved, the gap across the red half, the bridge over it.
  [200, 150, null],
  [220, 290, "red"],
  [60, 60, "red"],
  [60, 245, "navy"],
  [120, 200, null],
  [160, 200, "red"],
  [225, 150, "gold"],
  [300, 100, "navy"],
];

beforeAll(async () => {
  const png = join(folder, "art.png");
  await sharp(Buffer.from(ART)).png().toFile(png);
  const recipe = join(folder, "recipe.json");
  // Spots are named by their colours.
  const entries = [
    {
      id: "hole",
      kind: "draw",
      figure: { kind: "ellipse", at: { x: 200, y: 150 }, width: 20, height: 20 },
      spotId: null,
      heldMm: 10,
    },
    {
      id: "seam",
      kind: "line",
      changes: [{ was: line(200, 200, 200, 300), now: line(200, 200, 240, 300), left: "14304f", right: "d8412f" }],
    },
    {
      id: "square",
      kind: "pieces",
      picks: [{ at: { x: 60, y: 60 }, spotId: "14304f" }],
      stays: "away",
      placed: [{ dx: 0, dy: 185 }],
    },
    {
      id: "gap",
      kind: "draw",
      act: "part",
      figure: { kind: "stroke", curve: line(-10, 200, 185, 200), width: 8 },
      spotId: null,
      onlyOn: "d8412f",
    },
    {
      id: "bridge",
      kind: "draw",
      act: "join",
      figure: { kind: "stroke", curve: line(160, 190, 160, 210), width: 12 },
      spotId: "d8412f",
    },
    { id: "cut", kind: "cut", curve: line(180, 60, 420, 75), spotId: "14304f" },
  ] as const;
  const wanted = makeRecipe({ artwork: { width: { value: 200, unit: "mm" } }, shapes: { entries: entries as never } });
  writeFileSync(recipe, JSON.stringify(wanted));
  await run(
    "npx",
    ["tsx", "cli/src/main.ts", png, "--recipe", recipe, "--shapes", "svg,pdf,eps,dxf", "--out", join(folder, "out")],
    { cwd: ROOT },
  );
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true }));

const made = (name: string) => join(folder, "out", "art", name);

/** Fails where a picture of the art, drawn by another program, shows something else than the edits say. */
async function expectThere(file: string): Promise<void> {
  const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  for (const [x, y, name] of THERE) {
    const p = (Math.round((y / HEIGHT) * info.height) * info.width + Math.round((x / WIDTH) * info.width)) * 4;
    const [r, g, b, a] = data.subarray(p, p + 4);
    const isBare = a < 20 || Math.min(r, g, b) > 235;
    if (name === null) expect([x, y, isBare]).toEqual([x, y, true]);
    else {
      const wanted = [1, 3, 5].map((i) => Number.parseInt(NAMES[name].slice(i, i + 2), 16));
      expect(Math.max(...[r, g, b].map((v, c) => Math.abs(v - wanted[c])))).toBeLessThan(40);
    }
  }
}

describe("after edits by hand", () => {
  it("shapes.svg shows them, and no hairline between neighbours but at what is open", async () => {
    const png = join(folder, "svg.png");
    await run("rsvg-convert", ["-w", "1200", "-h", "900", "-o", png, made("shapes.svg")]);
    await expectThere(png);
    const { data, info } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    let thin = 0;
    for (let p = 0; p < info.width * info.height; p++) {
      const [x, y] = [((p % info.width) + 0.5) / 3, (Math.floor(p / info.width) + 0.5) / 3];
      const isOpen =
        Math.abs(Math.hypot(x - 200, y - 150) - 10) < 1 ||
        Math.hypot(x - 200, y - 150) < 10 ||
        (Math.abs(y - 200) < 5 && x < 200);
      if (!isOpen && data[p * 4 + 3] < 235) thin++;
    }
    // A pixel or so is left where the cut ends at the edge of the picture.
    expect(thin).toBeLessThan(3);
  });

  it("so do shapes.pdf (poppler) and shapes.eps (ghostscript)", async () => {
    await run("pdftocairo", ["-png", "-r", "100", "-singlefile", made("shapes.pdf"), join(folder, "pdf")]);
    await expectThere(join(folder, "pdf.png"));
    await run("gs", [
      "-q",
      "-dNOPAUSE",
      "-dBATCH",
      "-dSAFER",
      "-dEPSCrop",
      "-sDEVICE=png16m",
      "-r100",
      `-sOutputFile=${join(folder, "eps.png")}`,
      made("shapes.eps"),
    ]);
    await expectThere(join(folder, "eps.png"));
  });

  it("shapes.dxf has the held hole as a circle of its measure (dxf-parser)", () => {
    const dxf = new DxfParser().parseSync(readFileSync(made("shapes.dxf"), "utf8"));
    const radii = (dxf?.entities ?? []).flatMap((one) =>
      one.type === "CIRCLE" ? [(one as ICircleEntity).radius] : [],
    );
    expect(radii.some((radius) => Math.abs(2 * radius - 10) < 0.001)).toBe(true);
  });

  it("the plates leave the hole and the gap open, and trap along the seam where it is now", async () => {
    const { spots } = await readPlates(made("separations.pdf"), 150, folder);
    const plates = [...spots.values()];
    const isInk = ({ data, width, height }: PlatePicture, x: number, y: number) =>
      data[Math.round((y / HEIGHT) * height) * width + Math.round((x / WIDTH) * width)] < 128;
    const inks = (x: number, y: number) => plates.filter((plate) => isInk(plate, x, y)).length;
    for (const [x, y, there] of THERE) expect([x, y, inks(x, y) > 0]).toEqual([x, y, there !== null]);
    // The seam runs from 200, 200 to 240, 300 now: on it both inks lie, a quarter of a trap to either side or so.
    const along = Array.from({ length: 9 }, (_, k) => [204 + 4 * k, 210 + 10 * k] as const);
    const trapped = along.filter(([x, y]) => Math.max(inks(x + 0.3, y), inks(x - 0.3, y)) === 2);
    expect(trapped).toHaveLength(9);
    // Where it was there is one ink.
    expect([inks(200.3, 260), inks(199.7, 260)]).toEqual([1, 1]);
  });
});
