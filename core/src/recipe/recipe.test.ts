import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { layShapes, writeShapesSvg } from "../formats/index.ts";
import { proposeBackground } from "../raster/index.ts";
import { spotOfId } from "../reduce/index.ts";
import { type ScreensSettings, screens, writeSeparationsPdf } from "../screens/index.ts";
import { drawSvg, renderSvg } from "../testing/pictures.test.support.ts";
import { countShapes } from "../trace/index.ts";
import {
  layUpright,
  listWarnings,
  makeRecipe,
  makeReport,
  makeResultCache,
  pickBackground,
  type Recipe,
  readRecipe,
  recipeSchema,
  runPipeline,
  runSteps,
} from "./index.ts";

const raster = drawSvg(
  128,
  '<circle cx="60" cy="64" r="44" fill="#d8412f"/><rect x="50" y="50" width="60" height="20" fill="#14304f"/>',
);
const artwork = { key: "a", raster };
const recipe = makeRecipe({ artwork: { garment: "#1d2a44" } });
const withScreens = (from: Recipe, part: Partial<ScreensSettings>): Recipe => screens.withSettings(from, part);
const separationOf = ({ made }: ReturnType<typeof runPipeline>) => {
  const separation = screens.resultIn(made);
  if (!separation) throw new Error("nothing was separated");
  return separation;
};

describe("artwork and recipe give every result", () => {
  it("byte for byte the same, however often", async () => {
    const date = new Date("2026-11-25T00:00:00Z");
    const [one, other] = [runPipeline(artwork, recipe), runPipeline(artwork, recipe)];
    expect(writeShapesSvg(layShapes(one.map, one.reduction.spots, 1))).toBe(
      writeShapesSvg(layShapes(other.map, other.reduction.spots, 1)),
    );
    expect(await writeSeparationsPdf(separationOf(one), date)).toEqual(
      await writeSeparationsPdf(separationOf(other), date),
    );
  });

  it("a change redoes its step and those after it, nothing before", () => {
    const cache = makeResultCache();
    const before = runPipeline(artwork, recipe, cache);
    const trapped = runPipeline(artwork, withScreens(recipe, { trapMm: 1 }), cache);
    expect(trapped.map).toBe(before.map);
    expect(separationOf(trapped)).not.toBe(separationOf(before));
    const renamed = runPipeline(
      artwork,
      { ...recipe, colours: { ...recipe.colours, decided: { d8412f: { name: "Brick" } } } },
      cache,
    );
    expect(renamed.map).toBe(before.map);
    expect(separationOf(renamed).plates.map((plate) => plate.name)).toContain("Brick");
    const retraced = runPipeline(artwork, { ...recipe, shapes: { ...recipe.shapes, tolerancePx: 1 } }, cache);
    expect(retraced.findings).toBe(before.findings);
    expect(retraced.map).not.toBe(before.map);
  });

  it("a new tolerance does not read the boundaries again, and gives what a fresh start gives", () => {
    const cache = makeResultCache();
    const withTolerance = (tolerancePx: number) => ({ ...recipe, shapes: { ...recipe.shapes, tolerancePx } });
    runPipeline(artwork, withTolerance(0.2), cache);
    const boundaries = cache.kept.read?.result;
    for (const tolerancePx of [0.5, 0.1, 0.2]) {
      const after = runPipeline(artwork, withTolerance(tolerancePx), cache);
      expect(cache.kept.read?.result).toBe(boundaries);
      expect(after.map).toEqual(runPipeline(artwork, withTolerance(tolerancePx)).map);
    }
    runPipeline(artwork, { ...recipe, shapes: { ...recipe.shapes, cornerDeg: 50 } }, cache);
    expect(cache.kept.read?.result).not.toBe(boundaries);
  });

  it("areas given one after another come out as all at once from a fresh start, whatever they are", () => {
    const lines = drawSvg(
      160,
      '<g fill="none" stroke="#101014" stroke-width="5"><circle cx="60" cy="60" r="40"/><circle cx="100" cy="95" r="45"/><path d="M5 110C50 60 100 150 155 30"/></g>',
    );
    const drawing = { key: "lines", raster: lines };
    const place = fc.record({ x: fc.integer({ min: 1, max: 158 }), y: fc.integer({ min: 1, max: 158 }) });
    const edit = fc.record({
      at: place,
      kind: fc.constantFrom("pour" as const, "recolour" as const),
      spotId: fc.constantFrom("new-1", "new-2", "nothing"),
      reach: fc.constantFrom("area" as const, "area" as const, "enclosed" as const),
      isOn: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(edit, { minLength: 2, maxLength: 4 }), (edits) => {
        const cache = makeResultCache();
        const added = [
          { id: "new-1", hex: "#d8412f" },
          { id: "new-2", hex: "#f2b134" },
        ];
        for (let n = 0; n <= edits.length; n++) {
          const corrections = edits.slice(0, n).map((one, i) => ({ ...one, id: `c${i}`, loop: [] }));
          const wanted = makeRecipe({ colours: { decided: { ffffff: { role: "drop" } }, added, corrections } });
          const { map, assignment } = runPipeline(drawing, wanted, cache);
          const fresh = runPipeline(drawing, wanted);
          expect(assignment.spotOfPixel.data).toEqual(fresh.assignment.spotOfPixel.data);
          expect(map).toEqual(fresh.map);
        }
      }),
      { numRuns: 8 },
    );
  });

  it("moving a plate, renaming a spot or switching the base does not spread the traps again", () => {
    const cache = makeResultCache();
    const before = runPipeline(artwork, recipe, cache);
    const region = (results: typeof before, id: string) =>
      separationOf(results).plates.find((p) => p.id === id)?.region;
    const moved = { ...recipe, colours: { ...recipe.colours, order: ["14304f", "d8412f"] } };
    const renamed = { ...moved, colours: { ...moved.colours, decided: { d8412f: { name: "Brick" } } } };
    const bare = withScreens(renamed, { base: { ...screens.settingsIn(recipe).base, mode: "off" } });
    for (const changed of [moved, renamed, bare]) {
      const after = runPipeline(artwork, changed, cache);
      expect(region(after, "d8412f")).toBe(region(before, "d8412f"));
      // What is kept must be what a fresh start gives.
      expect(separationOf(after)).toEqual(separationOf(runPipeline(artwork, changed)));
    }
    const spread = withScreens(bare, { trapMm: 1 });
    expect(region(runPipeline(artwork, spread, cache), "d8412f")).not.toBe(region(before, "d8412f"));
  });

  it("tells each step before it is computed", () => {
    const steps = [...runSteps(artwork, recipe, makeResultCache())];
    expect(steps.map(({ name }) => name)).toEqual([
      ...["prepare", "find", "reduce", "assign", "read", "trace", "edit"],
      ...["screens.inks", "screens.base", "screens.separate"],
    ]);
    const done = steps.map((step) => step.done);
    expect(done[0]).toBe(0);
    for (let i = 1; i < done.length; i++) expect(done[i]).toBeGreaterThan(done[i - 1]);
  });
});

describe("a recipe of an earlier form", () => {
  const entry = { id: "s1", isOn: true, tolerancePx: 1.5, scope: { kind: "spot", spotId: "d8412f" } } as const;

  it("is brought over when it is read: its simplifications become entries, and it gives what it gave", () => {
    const { entries: _, ...shapes } = recipe.shapes;
    const { process: _process, processes, ...common } = recipe;
    const { order: _order, decided: _decided, ...colours } = recipe.colours;
    const base = { mode: "on", chokeMm: 0.5, thinnestMm: 0.4 } as const;
    const bricks = { d8412f: { name: "Brick" } };
    const films = { sheetMm: null, isMirrored: true, hasMarks: true, hasLabels: false };
    const kept = {
      ...common,
      format: 1,
      colours: { ...colours, spots: bricks },
      shapes: { ...shapes, simplify: [entry] },
      separations: { order: ["14304f"], trapMm: 0.5, base: { ...base, spots: { d8412f: true } } },
      output: films,
    };
    const read = readRecipe(JSON.parse(JSON.stringify(kept)));
    expect(read).toEqual({
      ...common,
      colours: { ...colours, decided: bricks, order: ["14304f"] },
      shapes: { ...shapes, entries: [{ ...entry, kind: "simplify" }] },
      process: "screens",
      processes: { ...processes, screens: { trapMm: 0.5, base: { ...base, decided: { d8412f: true } }, films } },
    });
    expect(countShapes(runPipeline(artwork, read).map).nodes).toBeLessThan(
      countShapes(runPipeline(artwork, recipe).map).nodes,
    );
    // Brought over once, it stays as it is; parts of a recipe are taken, too.
    expect(readRecipe(read)).toEqual(read);
    expect(readRecipe({ shapes: { simplify: [entry] } }).shapes.entries).toHaveLength(1);
    expect(screens.settingsIn(readRecipe({ separations: { trapMm: 0.2 } }))).toMatchObject({
      trapMm: 0.2,
      films: { isMirrored: false },
    });
    expect(screens.settingsIn(readRecipe({ output: { isMirrored: true } })).films.isMirrored).toBe(true);
    expect(readRecipe({ colours: { spots: bricks } }).colours.decided).toEqual(bricks);
    const { decided, ...undecided } = screens.settingsIn(recipe).base;
    const second = {
      ...recipe,
      format: 2,
      processes: { screens: { base: { ...undecided, spots: { ffffff: false } } } },
    };
    expect(screens.settingsIn(readRecipe(second)).base).toEqual({
      ...undecided,
      decided: { ...decided, ffffff: false },
    });
    expect(readRecipe({})).toEqual(makeRecipe());
  });

  it("of a form that is not known is refused, and so is what is no recipe", () => {
    expect(() => readRecipe({ ...recipe, format: 4 })).toThrow(/format/);
    for (const nonsense of [null, 7, "recipe", [], { format: 1, shapes: [] }, { format: 1, shapes: { simplify: [7] } }])
      expect(() => readRecipe(nonsense)).toThrow();
  });
});

describe("the recipe's schema", () => {
  it("fills an empty recipe with the trade's defaults", () => {
    const { artwork: art, shapes, ...rest } = makeRecipe();
    const { trapMm, base } = screens.settingsIn(rest);
    expect(art.width).toEqual({ value: 10.5, unit: "in" });
    expect([trapMm, base.chokeMm, shapes.specksPx]).toEqual([0.3, 0.35, 2]);
  });
  it.each([
    { artwork: { width: { value: 3, unit: "mm" } } },
    { artwork: { garment: "navy" } },
    { processes: { screens: { trapMm: -1 } } },
    { process: "letterpress" },
    { colours: { decided: { d8412f: { process: "letterpress" } } } },
    { colours: { count: 0 } },
  ])("refuses %j", (parts) => {
    expect(recipeSchema.safeParse(parts).success).toBe(false);
  });
});

describe("warnings", () => {
  const warningsOf = (results: ReturnType<typeof runPipeline>, wanted = recipe) => listWarnings(results, wanted);

  it("say that paper prints as a background, until it is taken away or is the garment's", () => {
    const onPaper = runPipeline(artwork, recipe);
    expect(warningsOf(onPaper)[1].text).toMatch(/^White prints as a background over \d\d\.\d %.*--background away/);
    const white = makeRecipe();
    expect(
      warningsOf(runPipeline(artwork, white), white)
        .map(({ text }) => text)
        .join(),
    ).not.toContain("background");
    const proposal = proposeBackground(raster);
    if (!proposal) throw new Error("no background");
    const { frame } = layUpright(raster.width, raster.height, []);
    const away = makeRecipe({ artwork: { garment: "#1d2a44", actions: [pickBackground(proposal, frame, "a1")] } });
    const results = runPipeline(artwork, away);
    expect(
      warningsOf(results, away)
        .map(({ text }) => text)
        .join(),
    ).not.toContain("background");
    expect(results.reduction.spots.map(({ id }) => id)).not.toContain("ffffff");
  });

  it("say how much is half-transparent and where, and nothing once it is decided", () => {
    const shadowed = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="120"><rect x="40" y="40" width="60" height="50" fill="#000" fill-opacity="0.3"/><circle cx="50" cy="50" r="25" fill="#d8412f"/></svg>',
    );
    const [first] = warningsOf(runPipeline({ key: "s", raster: shadowed }, recipe)).filter(({ place }) => place);
    expect(first.text).toMatch(/1\d\.\d % of the picture is half-transparent, 1\d\.\d % of it under one half/);
    expect(first.place && first.place.x > 40 && first.place.x < 100).toBe(true);
    const decided = makeRecipe({
      artwork: { garment: "#1d2a44", actions: [{ id: "a1", kind: "see-through", treatment: "garment" }] },
    });
    const { reduction, prepared } = runPipeline({ key: "s", raster: shadowed }, decided);
    expect(prepared.seeThrough).toBeNull();
    // Three tenths of black on the garment: a tone of its own.
    expect(reduction.spots.map(({ pictureRgb }) => pictureRgb.join(" "))).toContain("20 29 47");
    // Changing the garment changes the tone.
    const onTeal = runPipeline(
      { key: "s", raster: shadowed },
      { ...decided, artwork: { ...decided.artwork, garment: "#1f7a8c" } },
    );
    expect(onTeal.reduction.spots.map(({ pictureRgb }) => pictureRgb.join(" "))).toContain("22 85 98");
  });
});

describe("spots and the garment", () => {
  it("a colour within 3 of the garment is proposed to be the garment, unless a person says otherwise", () => {
    const roleOf = (garment: string, decided = {}) =>
      runPipeline(artwork, makeRecipe({ artwork: { garment }, colours: { decided } })).reduction.spots.find(
        ({ id }) => id === "ffffff",
      )?.role;
    expect(roleOf("#fdfdfc")).toBe("garment");
    expect(roleOf("#e0e0e0")).toBe("ink");
    expect(roleOf("#ffffff", { ffffff: { role: "ink" } })).toBe("ink");
  });

  it("a correction finds its spot again in a file whose colours are a little other, and says when it does not", () => {
    const spots = runPipeline(artwork, recipe).reduction.spots;
    const idOf = (id: string) => spots[spotOfId(spots, id)]?.id ?? null;
    expect([idOf("d8412f"), idOf("d54431"), idOf("15304e")]).toEqual(["d8412f", "d8412f", "14304f"]);
    expect([idOf("3f9b5b"), idOf("new-1")]).toEqual([null, null]);
  });
});

describe("the report", () => {
  it("states coverage per spot that adds up to the picture, and warns of low resolution", () => {
    const results = runPipeline(artwork, recipe);
    const report = makeReport(recipe, results, {});
    expect(report.spots.reduce((sum, spot) => sum + spot.coverage, 0)).toBeCloseTo(1, 3);
    expect(report.warnings.join()).toContain("12 dpi");
    expect(report.plates).toContainEqual(expect.objectContaining({ name: "Underbase", kind: "base", order: 1 }));
  });
});
