import { expect, it } from "vitest";
import { later, loadAllParts } from "./later.ts";

it("loads a part once, when it is first asked for or when all are", async () => {
  let loads = 0;
  const part = later(async () => ++loads);
  expect(loads).toBe(0);
  expect(await part()).toBe(1);
  expect(await part()).toBe(1);
  const other = later(async () => ++loads);
  await loadAllParts();
  expect(loads).toBe(2);
  expect(await other()).toBe(2);
});
