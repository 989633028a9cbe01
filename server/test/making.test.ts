import type { MadeFile, Recipe } from "@plain-palette/core/recipe";
import { makeRecipe } from "@plain-palette/core/recipe";
import { screens } from "@plain-palette/core/screens";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import { type FilesTask, prepare, run } from "../src/compute/making.ts";
import { packPixels } from "../src/compute/pixels.ts";

/** A disc on a ground with a bar across. */
async function drawBadge(ground: string, disc: string, size = 200) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 200" width="${size}" height="${size}"><path d="M0 0h200v200H0z" fill="${ground}"/><circle cx="100" cy="100" r="70" fill="${disc}"/><path d="M20 90h160v24H20z" fill="#f2f0e4"/></svg>`;
  const { data } = await sharp(Buffer.from(svg)).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return packPixels({ width: size, height: size, data: new Uint8ClampedArray(data) }, []);
}

const orderedAt = new Date(0);

const make = async (order: Pick<FilesTask, "pixels" | "recipe">) => {
  const task: FilesTask = { ...order, job: "Crew", client: "Rowing club", orderedAt, fonts: [], motifs: new Map() };
  return (await run("files", task, () => {})) as MadeFile[];
};

beforeAll(prepare);

describe("a process that has made files before", () => {
  it("makes those of the next order as one that has not: another process, another trap, other colours, another picture", async () => {
    const [first, second] = [await drawBadge("#13304e", "#e8b23a"), await drawBadge("#13304e", "#1f7a8c")];
    const recipe = makeRecipe();
    const wider = screens.withSettings(recipe, { trapMm: 0.5 });
    const fewer: Recipe = { ...recipe, colours: { ...recipe.colours, count: 2 } };
    const orders = [
      { pixels: first, recipe },
      { pixels: first, recipe: { ...recipe, process: "transfer" } },
      { pixels: first, recipe: wider },
      { pixels: first, recipe: fewer },
      // Of the same size, so that nothing but its pixels tells it from the first.
      { pixels: second, recipe: fewer },
      { pixels: first, recipe },
    ];
    const kept: MadeFile[][] = [];
    for (const order of orders) kept.push(await make(order));
    const forgetting = { pixels: await drawBadge("#f2f0e4", "#e8b23a", 40), recipe };
    for (const [k, order] of orders.entries()) {
      await make(forgetting);
      expect(await make(order)).toEqual(kept[k]);
    }
    // They are all different orders, but for the first and the last.
    const plates = kept.map((files) => files.find(({ name }) => /films|sheet/.test(name))?.bytes);
    expect(new Set(plates.map((bytes) => bytes && Buffer.from(bytes).toString("base64"))).size).toBe(orders.length - 1);
  });
});
