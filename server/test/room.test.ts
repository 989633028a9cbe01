// What takes room, and that only what no rule keeps is let go of.
import { type RoomKind, roomSchema } from "@plain-palette/contract";
import { createConnection } from "mysql2/promise";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type Bench, createJob, drawPicture, send, startBench, untilRun } from "./bench.test.support.ts";

let bench: Bench;
beforeAll(async () => {
  bench = await startBench();
});
afterAll(() => bench.stop());

async function ask(sql: string, values: readonly unknown[] = []): Promise<unknown> {
  const connection = await createConnection(bench.databaseUrl());
  return (await connection.query(sql, [...values]).finally(() => connection.end()))[0];
}
async function part(kind: RoomKind) {
  const room = roomSchema.parse((await send(bench.url(), "GET", "/room")).body);
  return room.parts.find((one) => one.kind === kind);
}

it("a client's file stays as long as any version of a job is of it, and goes when none is", async () => {
  const [first, second] = [await drawPicture(1), await drawPicture(2)];
  const job = await createJob(bench.url(), first);
  await send(bench.url(), "POST", `/jobs/${job.id}/artwork?basedOn=1&name=better.png`, second);
  expect(await part("artworks")).toMatchObject({
    kept: { files: 2, bytes: first.length + second.length },
    goes: { files: 0 },
  });
  // As a job would leave it that is gone for good.
  await ask(
    "INSERT INTO artworks SELECT REPEAT('b', 64), kind, size, width, height, has_alpha, dpi, bytes, thumbnail, pages, content FROM artworks LIMIT 1",
  );
  expect(await part("artworks")).toMatchObject({ kept: { files: 3 }, goes: { files: 1 } });
  const gone = await send(bench.url(), "POST", "/room/tidy");
  expect(gone.body).toEqual([
    expect.objectContaining({ kind: "artworks", goes: expect.objectContaining({ files: 1 }) }),
  ]);
  expect(await part("artworks")).toMatchObject({ kept: { files: 2 }, goes: { files: 0 } });
  for (const hash of [job.artwork.hash])
    expect((await fetch(`${bench.url()}/api/artworks/${hash}/file`)).status).toBe(200);
});

it("of a job's makings the last two keep their files whatever their age, older ones for a week", async () => {
  const job = await createJob(bench.url(), await drawPicture(3));
  const ids: string[] = [];
  for (let i = 0; i < 4; i++) {
    const { body } = await send(bench.url(), "POST", `/jobs/${job.id}/runs`, { recipeVersion: 1 });
    const { id } = body as { id: string };
    ids.push(id);
    await untilRun(bench.url(), id, ["done"]);
  }
  expect((await part("runs"))?.goes.files).toBe(0);
  // The first two and the last two are a month old.
  for (const id of ids) await ask("UPDATE runs SET created_at = created_at - INTERVAL 30 DAY WHERE id = ?", [id]);
  const { kept, goes } = (await part("runs")) ?? { kept: { files: 0 }, goes: { files: 0 } };
  expect(goes.files).toBe(kept.files / 2);
  await send(bench.url(), "POST", "/room/tidy");
  const left = await Promise.all(ids.map(async (id) => (await untilRun(bench.url(), id, ["done"])).files.length > 0));
  expect(left).toEqual([false, false, true, true]);
});

it("an upload that races with tidying keeps its file", async () => {
  const pictures = await Promise.all(Array.from({ length: 12 }, (_, i) => drawPicture(20 + i, 200 + i)));
  let isOver = false;
  const tidying = (async () => {
    while (!isOver) expect((await send(bench.url(), "POST", "/room/tidy")).status).toBe(200);
  })();
  const jobs = await Promise.all([...pictures, ...pictures].map((picture) => createJob(bench.url(), picture)));
  isOver = true;
  await tidying;
  for (const { artwork } of jobs)
    expect((await fetch(`${bench.url()}/api/artworks/${artwork.hash}/file`)).status).toBe(200);
});
