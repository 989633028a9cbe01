// Mutated files of every kind, and files made to take whoever opens them for good: each is answered in time, and afterwards
// nothing is left of any of them.
import { execFileSync } from "node:child_process";
import { readdirSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { OWN_HEADER } from "@plain-palette/contract";
import { ATTACKS } from "../../server/test/attack.test.support.ts";
import { MORE_ATTACKS } from "../../server/test/more-attacks.test.support.ts";
import { mutate } from "../../server/test/mutate.test.support.ts";
import { soundFiles } from "../../server/test/sound-files.test.support.ts";
import { quantile } from "./people.ts";
import { type SupervisedShop, startSupervised } from "./supervised.ts";

/** So many are on their way at once, each of a client of its own. */
const AT_ONCE = 6;
/** Until what is held is looked at afterwards, ms: longer than a process that has nothing to do holds much. */
const REST_MS = 15_000;

interface Traces {
  readonly residentMb: number;
  readonly processes: number;
  readonly descriptors: number;
  readonly temporary: number;
  readonly sentByReaders: number;
}

/** Bytes that left on any way a process has to a network (proc(5): its last eight columns are what was sent). */
function sentBy(pid: number): number {
  const [, , ...ways] = readFileSync(`/proc/${pid}/net/dev`, "utf8").trim().split("\n");
  return ways.reduce((sum, way) => sum + Number(way.trim().split(/[\s:]+/)[9]), 0);
}

/** What the shop holds now. */
function tracesOf(shop: SupervisedShop): Traces {
  const servers = shop.processes("server");
  const pids = [...servers, ...shop.processes("reader")];
  const resident = pids.map((pid) =>
    Number(/^VmRSS:\s+(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0),
  );
  const poppler = execFileSync("ps", ["-eo", "args="], { encoding: "utf8" })
    .split("\n")
    .filter((line) => /^pdf(info|images|tocairo)/.test(line));
  return {
    residentMb: Math.round(resident.reduce((sum, kb) => sum + kb, 0) / 1024),
    processes: pids.length + poppler.length,
    descriptors: servers.reduce((sum, pid) => sum + readdirSync(`/proc/${pid}/fd`).length, 0),
    temporary: readdirSync(tmpdir()).length,
    sentByReaders: shop.processes("reader").reduce((sum, pid) => sum + sentBy(pid), 0),
  };
}

/** Prints and returns the figures; `attacks`: which of the files that were made to take whoever opens them are sent, too. */
export async function trialOfUploads(
  count: number,
  attacks: readonly { readonly name: string; bytes(): Buffer | Promise<Buffer> }[] = [...ATTACKS, ...MORE_ATTACKS],
) {
  const shop = await startSupervised();
  try {
    const { pdf = Buffer.alloc(0), ...others } = await soundFiles();
    // Another program draws a PDF, which takes a hundred times as long as all else: one comes to four of each.
    const sources = [...Array.from({ length: 4 }, () => Object.values(others)).flat(), pdf];
    const statuses = new Map<number, number>();
    const tookMs: number[] = [];
    const bad: string[] = [];
    const slow: [number, string][] = [];
    const send = async (name: string, bytes: Buffer, client: string) => {
      const started = performance.now();
      const response = await fetch(`${shop.url}/api/jobs?name=x`, {
        method: "POST",
        headers: { "Content-Type": "application/octet-stream", [OWN_HEADER]: client },
        body: new Uint8Array(bytes),
      });
      const text = await response.text();
      tookMs.push(performance.now() - started);
      statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
      if (response.status >= 500 && response.status !== 503)
        bad.push(`${name}: ${response.status} ${text.slice(0, 200)}`);
      if ((tookMs.at(-1) ?? 0) > 30_000) bad.push(`${name}: ${Math.round(tookMs.at(-1) ?? 0)} ms`);
    };
    // Once round before it is counted: what is read when first needed is read.
    for (const [i, source] of sources.entries()) await send("warm", source, `warm ${i}`);
    const before = tracesOf(shop);
    let next = 0;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async (_, client) => {
        for (let seed = next++; seed < count; seed = next++) {
          const source = sources[seed % sources.length] ?? Buffer.alloc(0);
          await send(`mutated ${seed}`, mutate(source, seed + 1), `client ${client}`);
          if (seed % 5000 === 4999) console.log(`${seed + 1} files`, tracesOf(shop));
        }
      }),
    );
    for (const attack of attacks) {
      const bytes = await attack.bytes();
      // Making it may have taken longer than a connection is kept: seen before the next is used.
      await new Promise((resolve) => setTimeout(resolve, 10));
      await send(attack.name, bytes, "attacker");
      slow.push([Math.round(tookMs.at(-1) ?? 0), attack.name]);
    }
    await new Promise((resolve) => setTimeout(resolve, REST_MS));
    const after = tracesOf(shop);
    const figures = {
      files: tookMs.length,
      statuses: Object.fromEntries(statuses),
      medianMs: quantile(tookMs, 0.5),
      mostMs: quantile(tookMs, 1),
      bad: bad.length,
      slowestAttacks: slow.sort(([a], [b]) => b - a).slice(0, 8),
      before,
      after,
    };
    console.log(JSON.stringify(figures, null, 1), bad.slice(0, 10));
    return figures;
  } finally {
    await shop.stop();
  }
}
