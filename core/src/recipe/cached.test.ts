// What is kept must be what a fresh start gives: a step that reads more of the recipe than its entry in the table says
// would show an old result.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type ScreensSettings, screens } from "../screens/index.ts";
import { type AreaEntry, type StitchSettings, stitches } from "../stitch/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
import { type TransferSettings, transfer } from "../transfer/index.ts";
import { makeRecipe, makeResultCache, type Recipe, runPipeline } from "./index.ts";

const artwork = {
  key: "boats",
  raster: drawSvg(
    72,
    '<rect width="72" height="72" fill="#ffffff"/><circle cx="34" cy="36" r="24" fill="#d8412f"/><rect x="28" y="28" width="36" height="12" fill="#14304f"/><path d="M10 60L30 44L44 66Z" fill="#f2b134"/><circle cx="56" cy="56" r="9" fill="none" stroke="#101014" stroke-width="3"/>',
  ),
};
const SPOTS = ["ffffff", "d8412f", "14304f", "f2b134", "101014", "new-1"] as const;

type Edit = (recipe: Recipe) => Recipe;
const place = fc.record({ x: fc.integer({ min: 0, max: 71 }), y: fc.integer({ min: 0, max: 71 }) });
const spot = fc.constantFrom(...SPOTS);

const artworkEdit =
  (change: (artwork: Recipe["artwork"]) => Partial<Recipe["artwork"]>): Edit =>
  (recipe) => ({
    ...recipe,
    artwork: { ...recipe.artwork, ...change(recipe.artwork) },
  });
const coloursEdit =
  (change: (colours: Recipe["colours"]) => Partial<Recipe["colours"]>): Edit =>
  (recipe) => ({
    ...recipe,
    colours: { ...recipe.colours, ...change(recipe.colours) },
  });
const shapesEdit =
  (part: Partial<Recipe["shapes"]>): Edit =>
  (recipe) => ({
    ...recipe,
    shapes: { ...recipe.shapes, ...part },
  });
const screensEdit =
  (change: (screens: ScreensSettings) => Partial<ScreensSettings>): Edit =>
  (recipe) =>
    screens.withSettings(recipe, change(screens.settingsIn(recipe)));
const transferEdit =
  (part: Partial<TransferSettings>): Edit =>
  (recipe) => ({ ...transfer.withSettings(recipe, part), process: "transfer" });
const stitchesEdit =
  (change: (stitches: StitchSettings) => Partial<StitchSettings>): Edit =>
  (recipe) => ({ ...stitches.withSettings(recipe, change(stitches.settingsIn(recipe))), process: "stitches" });
const actionsOf = (...actions: object[]) => makeRecipe({ artwork: { actions: actions as never } }).artwork.actions;

/** One decision of any kind, as a person makes them. */
const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc.constantFrom("#ffffff", "#1d2a44", "#d8412f").map((garment) => artworkEdit(() => ({ garment }))),
  fc.integer({ min: 40, max: 300 }).map((value) => artworkEdit(() => ({ width: { value, unit: "mm" } }))),
  fc
    .constantFrom(
      { kind: "turn", quarters: 1 },
      { kind: "crop", x: 4, y: 6, width: 60, height: 58 },
      { kind: "pick", seeds: [{ x: 1, y: 1 }], hex: "#ffffff" },
      { kind: "stroke", mode: "erase", radiusPx: 3, points: [10, 10, 60, 60] },
      { kind: "line-art" },
    )
    .map((action) =>
      artworkEdit(({ actions }) => ({ actions: [...actions, ...actionsOf({ ...action, id: `a${actions.length}` })] })),
    ),
  fc.nat(3).map((i) =>
    artworkEdit(({ actions }) => ({
      actions: actions.map((one, k) => (k === i ? { ...one, isOn: !one.isOn } : one)),
    })),
  ),
  fc.constantFrom(null, 2, 3, 4).map((count) => coloursEdit(() => ({ count }))),
  fc.tuple(spot, spot).map(([from, into]) => coloursEdit(({ merges }) => ({ merges: [...merges, { from, into }] }))),
  fc
    .tuple(
      spot,
      fc.constantFrom(
        { role: "drop" as const },
        { role: "garment" as const },
        { role: "ink" as const },
        { hex: "#58a6b0" },
        { hex: "#f2efe4" },
        { name: "Brick" },
        { isLocked: true },
      ),
    )
    .map(([id, part]) =>
      coloursEdit(({ decided }) => ({ decided: { ...decided, [id]: { ...decided[id], ...part } } })),
    ),
  fc
    .record({
      at: place,
      kind: fc.constantFrom("pour" as const, "recolour" as const),
      spotId: spot,
      isOn: fc.boolean(),
    })
    .map((one) =>
      coloursEdit(({ corrections }) => ({
        added: [{ id: "new-1", hex: "#1f7a8c" }],
        corrections: [...corrections, { ...one, id: `c${corrections.length}`, reach: "area", loop: [] }],
      })),
    ),
  fc
    .constantFrom<Partial<Recipe["shapes"]>>(
      { tolerancePx: 0.8 },
      { tolerancePx: 0.1 },
      { specksPx: 6 },
      { cornerDeg: 60 },
      { thinnestPx: 2 },
      { keepsText: false },
      {
        entries: [
          { id: "s", isOn: true, kind: "simplify", tolerancePx: 1, scope: { kind: "shape", at: { x: 30, y: 20 } } },
        ],
      },
      {
        entries: [{ id: "s", isOn: true, kind: "simplify", tolerancePx: 2, scope: { kind: "spot", spotId: "d8412f" } }],
      },
    )
    .map(shapesEdit),
  fc.constantFrom(0, 0.2, 0.9).map((trapMm) => screensEdit(() => ({ trapMm }))),
  fc.shuffledSubarray([...SPOTS]).map((order) => coloursEdit(() => ({ order }))),
  fc
    .constantFrom<Partial<ScreensSettings["base"]>>(
      { mode: "on" },
      { mode: "off" },
      { mode: "auto" },
      { chokeMm: 0.8 },
      { thinnestMm: 1 },
      { decided: { d8412f: false } },
      { decided: { "101014": true } },
    )
    .map((part) => screensEdit(({ base }) => ({ base: { ...base, ...part } }))),
  fc
    .constantFrom<Partial<TransferSettings>>(
      { lapMm: 1 },
      { toleranceMm: 0.2 },
      { order: ["14304f", "d8412f"] },
      { decided: { d8412f: { mode: "solid" } } },
      { thickensStrips: true },
      { givesIslands: true },
      { isMirrored: false },
      { limits: { stripMm: 3, gapMm: 2, islandMm: 8 } },
    )
    .map(transferEdit),
  fc
    .constantFrom<Partial<StitchSettings>>(
      { fabric: "knit" },
      { order: ["14304f", "d8412f"] },
      { everywhere: { spacingMm: 0.6 } },
      { decided: { d8412f: { angleDeg: 10, border: { kind: "satin", widthMm: 2, spotId: "14304f" } } } },
      { sequence: [{ x: 30, y: 52 }] },
      { hoop: { widthMm: 50, heightMm: 50 } },
    )
    .map((part) => stitchesEdit(() => part)),
  fc
    .tuple(
      place,
      fc.constantFrom<Partial<AreaEntry>>(
        { as: "satin" },
        { as: "none" },
        { angleDeg: 70 },
        { start: { x: 12, y: 40 } },
        { stop: { x: 60, y: 30 }, isOn: false },
      ),
    )
    .map(([at, part]) =>
      stitchesEdit(({ areas }) => ({ areas: [...areas, { id: `area-${areas.length}`, isOn: true, at, ...part }] })),
    ),
);

describe("results that are kept", () => {
  it("property: are what a fresh start gives, after any edits of the recipe, undone or not", () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(edit, fc.boolean()), { minLength: 1, maxLength: 6 }), (edits) => {
        const cache = makeResultCache();
        let recipe = makeRecipe();
        runPipeline(artwork, recipe, cache);
        for (const [change, isUndone] of edits) {
          const changed = change(recipe);
          for (const wanted of isUndone ? [changed, recipe] : [changed]) {
            const kept = runPipeline(artwork, wanted, cache);
            const fresh = runPipeline(artwork, wanted);
            expect(kept.prepared.raster).toEqual(fresh.prepared.raster);
            expect(kept.reduction).toEqual(fresh.reduction);
            expect(kept.assignment.spotOfPixel).toEqual(fresh.assignment.spotOfPixel);
            expect(kept.assignment.underLines).toEqual(fresh.assignment.underLines);
            expect(kept.map).toEqual(fresh.map);
            expect(kept.made.map(({ process, result }) => ({ process, result }))).toEqual(
              fresh.made.map(({ process, result }) => ({ process, result })),
            );
          }
          if (!isUndone) recipe = changed;
        }
      }),
      { numRuns: 25 },
    );
  });
});
