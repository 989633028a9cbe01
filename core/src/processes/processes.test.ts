import { describe, expect, it } from "vitest";
import {
  listOutputs,
  makeRecipe,
  makeReport,
  makeResultCache,
  readRecipe,
  recipeOfShop,
  runPipeline,
} from "../recipe/index.ts";
import { screens } from "../screens/index.ts";
import { shopSettingsSchema } from "../shelf/index.ts";
import { drawSvg } from "../testing/pictures.test.support.ts";
// First: it adds a process before any recipe is read.
import { stencils } from "../testing/stencils.test.support.ts";
import { addProcess, allProcesses } from "./index.ts";

const artwork = {
  key: "boat",
  raster: drawSvg(
    96,
    '<circle cx="46" cy="48" r="34" fill="#d8412f"/><rect x="40" y="40" width="50" height="18" fill="#14304f"/>',
  ),
};
const recipe = makeRecipe({ artwork: { garment: "#ffffff" } });
const facts = { job: "1 Boat", client: "Tern", date: new Date(0), labelFont: new Uint8Array() };

describe("a job", () => {
  it("is made the way it says, and what was decided for another way is kept", () => {
    const decided = screens.withSettings(recipe, { trapMm: 0.7 });
    const cut = stencils.withSettings({ ...decided, process: "stencils" }, { marginMm: 4 });
    const { made } = runPipeline(artwork, cut);
    expect(made.map(({ process }) => process)).toEqual(["stencils"]);
    expect(
      stencils
        .resultIn(made)
        ?.map(({ id }) => id)
        .sort(),
    ).toEqual(["14304f", "d8412f"]);
    expect(screens.resultIn(made)).toBeNull();
    const again = readRecipe(JSON.parse(JSON.stringify({ ...cut, process: "screens" })));
    expect(screens.settingsIn(again).trapMm).toBe(0.7);
    expect(stencils.settingsIn(again).marginMm).toBe(4);
  });

  it("sends a single spot to another process: it leaves the first, and both give their files and facts", async () => {
    const sent = makeRecipe({
      artwork: { garment: "#1d2a44" },
      colours: { decided: { d8412f: { process: "stencils" }, ffffff: { role: "drop" } } },
    });
    const results = runPipeline(artwork, sent);
    expect(screens.resultIn(results.made)?.plates.map(({ id }) => id)).not.toContain("d8412f");
    expect(screens.resultIn(results.made)?.plates.map(({ id }) => id)).toContain("14304f");
    expect(stencils.resultIn(results.made)?.map(({ id }) => id)).toEqual(["d8412f"]);
    // The shapes are those of the whole design.
    expect(results.map.faces.some(({ spotId }) => spotId === "d8412f")).toBe(true);
    const { outputs } = await listOutputs({ ...results, made: results.made.slice(1) }, facts);
    expect(outputs.map(({ name }) => name)).toEqual(["stencils.svg"]);
    const report = makeReport(sent, results, {});
    expect(report).toMatchObject({ stencils: { sheets: ["Red"] }, plates: [{ name: "Navy" }] });
  });

  it("makes nothing elsewhere of a spot that is not in the picture any more", () => {
    const gone = makeRecipe({ colours: { decided: { "3f9b5b": { process: "stencils" } } } });
    expect(runPipeline(artwork, gone).made.map(({ process }) => process)).toEqual(["screens"]);
  });

  it("keeps what a process made until what it reads changes, apart from the others'", () => {
    const cache = makeResultCache();
    const both = makeRecipe({ ...recipe, colours: { decided: { d8412f: { process: "stencils" } } } });
    const before = runPipeline(artwork, both, cache);
    const trapped = runPipeline(artwork, screens.withSettings(both, { trapMm: 1.5 }), cache);
    expect(stencils.resultIn(trapped.made)).toBe(stencils.resultIn(before.made));
    expect(screens.resultIn(trapped.made)).not.toBe(screens.resultIn(before.made));
    const fewer = runPipeline(artwork, { ...both, shapes: { ...both.shapes, tolerancePx: 2 } }, cache);
    expect(stencils.resultIn(fewer.made)).not.toBe(stencils.resultIn(before.made));
  });

  it("begins with what its shop decided for all jobs", () => {
    const shop = shopSettingsSchema.parse({ thinnestLineMm: 0.5 });
    expect(screens.settingsIn(recipeOfShop(shop)).base.thinnestMm).toBe(0.5);
  });
});

describe("the processes", () => {
  it("each have an id, files and settings of their own, with a default for every one of them", () => {
    const ids = allProcesses().map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const { settings, settingsIn } of allProcesses())
      expect(settingsIn({ processes: {} })).toEqual(settings.parse({}));
  });

  it("are settled once a recipe was read: a later one is refused, not forgotten", () => {
    expect(() => addProcess({ ...stencils, id: "late" })).toThrow("too late");
  });

  it("that this program does not know keep their settings in the recipe", () => {
    const kept = { ...recipe, processes: { ...recipe.processes, letterpress: { depthMm: 0.4 } } };
    expect(readRecipe(JSON.parse(JSON.stringify(kept))).processes.letterpress).toEqual({ depthMm: 0.4 });
  });
});
