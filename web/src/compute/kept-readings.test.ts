// What was computed, kept by the browser: found again by the code that made it, and never more than there is room for.
import "fake-indexeddb/auto";
import type { Readings } from "@plain-palette/core/recipe";
import { expect, it, vi } from "vitest";
import { keepReadings } from "./kept-readings.ts";

/** Readings of about so many bytes; the same array twice counts once. */
function readingsOf(bytes: number): Readings {
  const labels = new Uint8Array(bytes);
  return { steps: {}, made: new Map([["screens", { inks: { key: "k", result: { labels, again: [labels] } } }]]) };
}

it("keeps large arrays apart, and lays them back wherever they were", async () => {
  const kept = keepReadings("code-0");
  const labels = Uint8Array.from({ length: 1_200_000 }, (_, k) => k % 7);
  const map = { labels };
  const result = { map, again: map, byName: new Map([["labels", labels]]), few: Float64Array.of(1, 2) };
  await kept.put("large", { steps: {}, made: new Map([["screens", { inks: { key: "k", result } }]]) });
  const found = await kept.find("large");
  const { inks } = (found?.made.get("screens") ?? {}) as { inks: { result: typeof result } };
  // By bytes: a comparison of elements takes half a minute.
  expect(Buffer.from(inks.result.map.labels).equals(Buffer.from(labels))).toBe(true);
  expect(inks.result.few).toEqual(result.few);
  // One array, in one map, as it was.
  expect(inks.result.again).toBe(inks.result.map);
  expect(inks.result.byName.get("labels")).toBe(inks.result.map.labels);
});

it("finds what the same code put, and nothing of another code", async () => {
  const kept = keepReadings("code-1");
  expect(await kept.find("ferry")).toBeNull();
  await kept.put("ferry", readingsOf(1000));
  expect(await kept.find("ferry")).toEqual(readingsOf(1000));
  expect(await keepReadings("code-2").find("ferry")).toBeNull();
  // The next that it puts takes the place of all that other code made.
  await keepReadings("code-2").put("kite", readingsOf(10));
  expect(await kept.find("ferry")).toBeNull();
});

it("lets the longest unused go when there are too many, and takes none that is over half of all", async () => {
  let now = 0;
  vi.spyOn(Date, "now").mockImplementation(() => ++now);
  const kept = keepReadings("code-3", 10_000);
  for (const name of ["a", "b", "c"]) await kept.put(name, readingsOf(3000));
  await kept.find("a");
  await kept.put("d", readingsOf(3000));
  await kept.put("large", readingsOf(5001));
  const found = await Promise.all(["a", "b", "c", "d", "large"].map(async (name) => (await kept.find(name)) !== null));
  expect(found).toEqual([true, false, true, true, false]);
  vi.restoreAllMocks();
});
