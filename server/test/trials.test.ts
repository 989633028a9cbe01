// The trials in short: what `npm run trial` does for an hour, for a minute.
import { expect, it } from "vitest";
import { trialOfDoors } from "../../tools/trials/doors.ts";
import { trialOfKills } from "../../tools/trials/kills.ts";
import { trialOfLoad, trialOfPair } from "../../tools/trials/load.ts";
import { trialOfUploads } from "../../tools/trials/uploads.ts";

it("kills of server, readers and database under ten people lose nothing that was acknowledged", async () => {
  const figures = await trialOfKills(5);
  expect(figures).toMatchObject({ lost: 0, brokenChains: 0, errors: 0 });
  expect(figures.kills).toBeGreaterThan(2);
  expect(figures.acknowledged).toBeGreaterThan(20);
});

it("twenty people on fifty jobs: every edit is acknowledged or said to be a conflict, and none is lost", async () => {
  const figures = await trialOfLoad(6);
  expect(figures).toMatchObject({ lost: 0, brokenChains: 0, errors: 0 });
  expect(figures.edits).toBeGreaterThan(40);
});

it("two servers on one database lose nothing of what is done at either, and make what is ordered at the other", async () => {
  const figures = await trialOfPair(5);
  expect(figures).toMatchObject({ lost: 0, brokenChains: 0, errors: 0, runsNotDone: 0 });
  expect(figures.edits).toBeGreaterThan(20);
});

it("mutated files of nine kinds: no 5xx, and nothing is left of them", async () => {
  const { bad, before, after } = await trialOfUploads(150, []);
  expect(bad).toBe(0);
  expect(after.processes).toBeLessThanOrEqual(before.processes + 1);
  expect(after.descriptors).toBeLessThanOrEqual(before.descriptors + 6);
});

it("every route, for strangers and with nonsense: nothing changes, and nothing fails", async () => {
  expect(await trialOfDoors(0.004)).toMatchObject({ bad: 0, isUnchanged: true });
});
