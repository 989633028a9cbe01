import { execFileSync } from "node:child_process";
import { describe, expect, it } from "vitest";
import { FACTS } from "../../../tools/testing/output-facts.ts";
import { listAreas } from "../area/index.ts";
import type { Rgb } from "../colour/index.ts";
import { findSewFaults, readStitchList } from "../practice/index.ts";
import { straightenFrame, wholeFrame } from "../raster/index.ts";
import { paint, traceRaster } from "../testing/pictures.test.support.ts";
import { COMMANDS, countPlan, measureAreas, type StitchSettings, stitches, stitchesMaking } from "./index.ts";

const WHITE: Rgb = [255, 255, 255];
const NAVY: Rgb = [20, 48, 79];
const GOLD: Rgb = [242, 177, 52];

/** A gold field of 40 x 24 px on cloth, a navy bar of 3 px in it and a navy square beside it. */
const ART = paint(100, 60, (x, y) => {
  if (x >= 60 && x < 90 && y >= 10 && y < 40) return NAVY;
  if (x < 10 || x >= 50 || y < 10 || y >= 34) return WHITE;
  return x >= 28 && x < 31 ? NAVY : GOLD;
});
const { map, reduction } = traceRaster(ART);
const SPOTS = reduction.spots.map((spot) => (spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot));
const GOLD_ID = "f2b134";
const NAVY_ID = "14304f";

/** What the process makes of it, a millimetre to the pixel unless said otherwise; white is the garment. */
function make(settings: Partial<StitchSettings> = {}, { widthMm = 100, frame = wholeFrame(100, 60), stock = {} } = {}) {
  const design = {
    ...{ map, picture: ART, frame, spots: SPOTS, order: [], widthMm, garment: WHITE },
    ...{ stock, pieces: 1, placement: null },
  };
  const recipe = stitches.withSettings({ processes: {} }, settings);
  const steps = stitchesMaking.open().make(design, recipe, "a picture");
  let step = steps.next();
  while (!step.done) step = steps.next();
  const made = stitches.resultIn([step.value]);
  if (!made) throw new Error("nothing was made");
  return { product: step.value, made };
}

const areaAt = (made: ReturnType<typeof make>["made"], x: number, y: number) => {
  const area = made.areas.find(({ rings: [ring] }) => {
    const xs = Array.from(ring).filter((_, i) => i % 2 === 0);
    const ys = Array.from(ring).filter((_, i) => i % 2 === 1);
    return x > Math.min(...xs) && x < Math.max(...xs) && y > Math.min(...ys) && y < Math.max(...ys);
  });
  if (!area) throw new Error(`no area at ${x}, ${y}`);
  return area;
};

describe("what is decided", () => {
  it("is by width at true size: the bar is satin, the square and the fields are fills; at a third of it the bar is a line", () => {
    const { made } = make();
    expect(made.areas.map(({ numbers }) => numbers.as).sort()).toEqual(["fill", "fill", "fill", "satin"]);
    expect(areaAt(made, 29.5, 20).numbers.as).toBe("satin");
    expect(areaAt(make({}, { widthMm: 25 }).made, 29.5 / 4, 5).numbers.as).toBe("bean");
  });
  it("is one for the letters of a word, whichever of them are thinner; what stands apart is sewn by its own width", () => {
    // At 0.4 mm to the pixel posts of 1.2 mm, shorter ones of 0.8 mm between them, and one of those far away.
    const picture = paint(160, 60, (x, y) => {
      const [tall, short] = [x >= 10 && x < 70 && x % 20 < 3, x >= 10 && x < 70 && x % 20 >= 10 && x % 20 < 12];
      const isLone = x >= 140 && x < 142 && y >= 20 && y < 34;
      return (tall && y >= 10 && y < 34) || (short && y >= 20 && y < 34) || isLone ? NAVY : WHITE;
    });
    const traced = traceRaster(picture);
    const spots = traced.reduction.spots.map((s) => (s.id === "ffffff" ? { ...s, role: "garment" as const } : s));
    const areas = measureAreas(listAreas({ map: traced.map, spots, widthMm: 64 }), traced.map);
    const [word, lone] = [areas.filter(({ rings }) => rings[0][0] < 50), areas.filter(({ rings }) => rings[0][0] > 50)];
    expect(word).toHaveLength(6);
    expect(new Set(word.map(({ proposedAs }) => proposedAs))).toEqual(new Set(["satin"]));
    expect(lone.map(({ proposedAs }) => proposedAs)).toEqual(["bean"]);
  });
  it("on everything, on a thread and on one area: the narrower goes before", () => {
    const at = { x: 75, y: 25 };
    const settings: Partial<StitchSettings> = {
      everywhere: { spacingMm: 0.6, pullMm: 0.1 },
      decided: { [NAVY_ID]: { spacingMm: 0.5 } },
      areas: [{ id: "area-1", isOn: true, at, angleDeg: 20 }],
    };
    const { made } = make(settings);
    expect(areaAt(made, 75, 25).numbers).toMatchObject({ spacingMm: 0.5, pullMm: 0.1, angleDeg: 20 });
    expect(areaAt(made, 29.5, 20).numbers).toMatchObject({ spacingMm: 0.5, pullMm: 0.1 });
    expect(areaAt(made, 20, 20).numbers).toMatchObject({ spacingMm: 0.6 });
    const off = make({ ...settings, areas: [{ id: "area-1", isOn: false, at, angleDeg: 20 }] });
    expect(areaAt(off.made, 75, 25).numbers.angleDeg).not.toBe(20);
  });
  it("leaves the underlay out under satin so open that it would be seen, unless a person wants it", () => {
    const bar = (everywhere: StitchSettings["everywhere"]) => areaAt(make({ everywhere }).made, 29.5, 20).numbers;
    expect(bar({}).hasUnderlay).toBe(true);
    expect(bar({ spacingMm: 0.75 })).toMatchObject({ as: "satin", hasUnderlay: false });
    expect(bar({ spacingMm: 0.75, hasUnderlay: true }).hasUnderlay).toBe(true);
  });
  it("finds its area again when the picture was straightened, and says where there is none any more", () => {
    const place = { id: "area-1", isOn: true, at: { x: 75, y: 25 }, as: "none" as const };
    const { made } = make({ areas: [place] });
    expect(areaAt(made, 75, 25).numbers.as).toBe("none");
    // The same pixels, but of a picture that was turned by half a circle of degrees: places are the client's.
    const frame = straightenFrame(wholeFrame(100, 60), 4);
    const turned = make({ areas: [place] }, { frame });
    expect(turned.made.areas.filter(({ numbers }) => numbers.as === "none")).toHaveLength(1);
    const lost = make({ areas: [{ ...place, at: { x: 3, y: 3 } }] });
    expect(lost.made.lost).toEqual(["area-1"]);
    expect(lost.product.report().warnings.map(({ text }) => text)).toContainEqual(
      "What was decided on area area-1 finds no area any more; it is kept.",
    );
  });
  it("on cloth: knit pulls more than woven, so rows are sewn longer", () => {
    const reach = (fabric: StitchSettings["fabric"]) => {
      const { plan } = make({ fabric, everywhere: { angleDeg: 0 } }).made;
      return Math.max(...plan.x) - Math.min(...plan.x);
    };
    expect(reach("knit") - reach("woven")).toBeCloseTo(0.4, 2);
  });
  it("takes a spot out altogether, and the order of threads by hand", () => {
    const { plan } = make({ decided: { [GOLD_ID]: { as: "none" } } }).made;
    expect(new Set(Array.from(plan.colour, (c) => plan.colours[c].spotId))).toEqual(new Set([NAVY_ID]));
    const first = make().made.plan.colours[0].spotId;
    const other = [GOLD_ID, NAVY_ID].find((id) => id !== first) ?? "";
    expect(make({ order: [other, first] }).made.plan.colours.map(({ spotId }) => spotId)).toEqual([other, first]);
  });
  it("starts and ends where a person says", () => {
    const { made } = make({
      decided: { [NAVY_ID]: { as: "none" } },
      areas: [{ id: "area-1", isOn: true, at: { x: 20, y: 20 }, start: { x: 10, y: 34 }, stop: { x: 28, y: 10 } }],
    });
    const area = areaAt(made, 20, 20);
    const own = Array.from(made.plan.area.keys()).filter((i) => made.areas[made.plan.area[i]]?.face === area.face);
    const place = (i: number) => [made.plan.x[i], made.plan.y[i]];
    const away = ([x, y]: number[], tx: number, ty: number) => Math.hypot(x - tx, y - ty);
    // The tie before its first stitch, at the corner of the line inside its edge.
    expect(away(place(own[0] - 1), 10, 34)).toBeLessThan(1);
    expect(away(place(own[own.length - 1]), 28, 10)).toBeLessThan(2.5);
  });
});

describe("what is said before it is sewn", () => {
  const saysOf = (settings: Partial<StitchSettings>, widthMm = 100) =>
    make(settings, { widthMm })
      .product.report()
      .warnings.map(({ text }) => text)
      .join("\n");
  it("is that the design does not go into the hoop, with both sizes; a turned one that fits is turned", () => {
    expect(saysOf({}, 95)).not.toMatch(/hoop/);
    expect(saysOf({ hoop: { widthMm: 100, heightMm: 50 } })).toContain(
      "The design, 100 x 60 mm, does not go into the hoop of 100 x 50 mm.",
    );
    const facts = make({ hoop: { widthMm: 60, heightMm: 120 } }).product.report().facts.stitches;
    expect(facts).toMatchObject({ hoop: { widthMm: 60, heightMm: 120, isTurned: true } });
  });
  it("is where stitches lie too close", () => {
    expect(saysOf({})).not.toMatch(/cloth may be cut/);
    expect(saysOf({ everywhere: { spacingMm: 0.2, stitchMm: 1 } })).toMatch(
      /closer than 4 to a square millimetre in \d+ places, at most \d/,
    );
  });
  it("is which satin is too narrow to be sewn", () => {
    expect(saysOf({ areas: [{ id: "a", isOn: true, at: { x: 29.5, y: 20 }, as: "satin" }] }, 25)).toMatch(
      /One area of satin is narrower than 1 mm, the narrowest 0\.7\d mm/,
    );
  });
  it("is lettering that does not hold, once for all of it; what lies inside letters is none, nor are specks", () => {
    const letters = paint(100, 60, (x, y) => {
      // Rows of letters, gold ones with a navy inside; a row of navy specks.
      if (y >= 34 && y < 37 && x >= 10 && x < 90 && x % 10 >= 2 && x % 10 < 4) return NAVY;
      if (y >= 50 && y < 52 && x >= 10 && x < 90) return x % 4 < 2 ? NAVY : WHITE;
      const row = y >= 10 && y < 20 ? NAVY : y >= 30 && y < 40 ? GOLD : null;
      return row && x >= 10 && x < 90 && x % 10 < 6 ? row : WHITE;
    });
    const traced = traceRaster(letters);
    const spots = traced.reduction.spots.map((spot) =>
      spot.id === "ffffff" ? { ...spot, role: "garment" as const } : spot,
    );
    const design = {
      ...{
        map: traced.map,
        picture: letters,
        frame: wholeFrame(100, 60),
        spots,
        order: [],
        widthMm: 30,
        garment: WHITE,
      },
      ...{ stock: {}, pieces: 1, placement: null },
    };
    const steps = stitchesMaking.open().make(design, { processes: {} }, "letters");
    let step = steps.next();
    while (!step.done) step = steps.next();
    const said = step.value.report().warnings.filter(({ text }) => text.includes("lettering"));
    expect(said.map(({ text }) => text)).toEqual([
      "16 areas look like lettering, the lowest 3.0 mm high; under 5 mm it does not hold.",
    ]);
  });
  it("counts what is sewn: thread and time by arithmetic, and each colour once", () => {
    const { product, made } = make();
    const facts = product.report().facts.stitches as ReturnType<typeof countPlan>;
    const counts = countPlan(made.plan, stitches.settingsIn({ processes: {} }));
    const of = (command: string) => Array.from(made.plan.command).filter((code) => COMMANDS[code] === command).length;
    expect(facts).toMatchObject({ count: of("stitch"), trims: of("trim"), changes: of("colour") });
    expect(counts.minutes * 60).toBeCloseTo((of("stitch") / 800) * 60 + of("colour") * 10 + of("trim") * 6, 6);
    expect(counts.colours.map(({ spotId }) => spotId).sort()).toEqual([NAVY_ID, GOLD_ID].sort());
    // Rows 0.4 mm apart over 37 x 24 mm of gold, a millimetre more for each stitch, underlay beside it.
    const gold = counts.colours.find(({ spotId }) => spotId === GOLD_ID);
    const least = ((37 * 24) / 0.4 + (gold?.stitches ?? 0)) / 1000;
    expect(gold?.threadM).toBeGreaterThan(least * 0.95);
    expect(gold?.threadM).toBeLessThan(least * 1.35);
  });
});

describe("the files", () => {
  const stock = {
    [GOLD_ID]: {
      kind: "thread",
      code: "T-204",
      name: "Lamp gold",
      hex: "#f2b134",
      difference: 0.4,
      film: null,
      stones: null,
    },
  };
  it("name threads from the shelf and the hoop, and the machine takes the list", async () => {
    const { product } = make({}, { widthMm: 90, stock });
    const { outputs } = await product.outputs(FACTS);
    expect(outputs.map(({ name }) => name)).toEqual(["stitches.csv", "stitches.svg", "worksheet.pdf"]);
    const list = readStitchList(new TextDecoder().decode(await outputs[0].make(() => {})));
    expect(list.threads).toContain("T-204 Lamp gold");
    expect([list.widthMm, list.heightMm, list.hoop]).toEqual([90, 54, { widthMm: 130, heightMm: 60 }]);
    expect(findSewFaults(list)).toEqual([]);
  });
  it("draw thread where shapes lie (librsvg), at true size", async () => {
    const { product } = make();
    const svg = await (await product.outputs(FACTS)).outputs[1].make(() => {});
    const ppm = execFileSync("rsvg-convert", ["-w", "400", "-b", "#ffffff"], { input: svg, maxBuffer: 1 << 26 });
    const rgba = execFileSync("pngtopnm", [], { input: ppm, maxBuffer: 1 << 26 });
    const [head, width] = /^P6\n(\d+) \d+\n255\n/.exec(rgba.subarray(0, 30).toString("latin1")) ?? [];
    const at = (xMm: number, yMm: number) => {
      const o = (head?.length ?? 0) + (Math.round(yMm * 4) * Number(width) + Math.round(xMm * 4)) * 3;
      return [...rgba.subarray(o, o + 3)];
    };
    const isNear = (rgb: number[], to: Rgb) => Math.max(...rgb.map((v, i) => Math.abs(v - to[i]))) < 90;
    let covered = 0;
    for (let y = 12; y < 32; y++) for (let x = 12; x < 26; x++) if (isNear(at(x + 0.5, y + 0.5), GOLD)) covered++;
    expect(covered / (20 * 14)).toBeGreaterThan(0.95);
    expect(isNear(at(75, 25), NAVY)).toBe(true);
    expect(at(5, 5)).toEqual([255, 255, 255]);
    expect(at(55, 50)).toEqual([255, 255, 255]);
  });
  it("tell whoever stands at the machine what to thread, in which order (poppler)", async () => {
    const { product } = make({ fabric: "towel" }, { widthMm: 90, stock });
    const pdf = await (await product.outputs(FACTS)).outputs[2].make(() => {});
    const text = execFileSync("pdftotext", ["-layout", "-", "-"], { input: pdf }).toString();
    for (const wanted of [
      "Worksheet",
      "7 Tern",
      "90.0 × 54.0 mm",
      "130 × 60 mm",
      "towel",
      "At true size",
      "T-204 Lamp gold",
    ])
      expect(text).toContain(wanted);
    expect(text).toMatch(/no thread chosen on the shelf\s+\d+ stitches/);
    const pages = execFileSync("pdfinfo", ["-"], { input: pdf }).toString();
    expect(pages).toMatch(/Pages:\s+1\n/);
    expect(pages).toMatch(/595\.\d+ x 841\.\d+ pts/);
  });
  it("have the outline of an applique's cloth, to be cut at true size, and of nothing else", async () => {
    const cut = make({ areas: [{ id: "a", isOn: true, at: { x: 75, y: 25 }, as: "applique" }] }).product;
    const file = (await cut.outputs(FACTS)).outputs.find(({ name }) => name === "applique.svg");
    const svg = new TextDecoder().decode(await file?.make(() => {}));
    expect(svg).toContain('width="100mm" height="60mm"');
    const numbers = (/ d="M([^"]*)Z"/.exec(svg)?.[1] ?? "").split(" ").map(Number);
    const [xs, ys] = [0, 1].map((axis) => numbers.filter((_, i) => i % 2 === axis));
    const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
    for (const [edge, wanted] of [
      [left, 60],
      [right, 90],
      [top, 10],
      [bottom, 40],
    ])
      expect(Math.abs(edge - wanted)).toBeLessThan(0.1);
    expect(svg.match(/<path/g)).toHaveLength(1);
  });
  it("sew five passes of a bean stitch where that was chosen", () => {
    const lengthOf = (passes: 3 | 5) => {
      const at = { x: 29.5, y: 20 };
      const bean = { id: "a", isOn: true, at, as: "bean" as const, passes };
      const { made, product } = make({ decided: { [GOLD_ID]: { as: "none" } }, areas: [bean] });
      const area = made.areas.indexOf(areaAt(made, at.x, at.y));
      expect(product.process).toBe("stitches");
      return Array.from(made.plan.area).filter((one) => one === area).length;
    };
    // One pass out, three or five back, of the same stitches.
    expect(lengthOf(5) / lengthOf(3)).toBeGreaterThan(1.4);
  });
  it("shrink a picture that is larger than the page, and say by how much", async () => {
    const { product } = make({}, { widthMm: 300 });
    const pdf = await (await product.outputs(FACTS)).outputs[2].make(() => {});
    expect(execFileSync("pdftotext", ["-", "-"], { input: pdf }).toString()).toContain("At 62 % of its size");
  });
});
