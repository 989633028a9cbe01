// Files are read by processes that can be killed: whatever is in a file, the server answers, and leaves nothing behind.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, statSync } from "node:fs";
import { connect } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { OWN_HEADER, problemSchema } from "@plain-palette/contract";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ATTACKS, nestedXml } from "./attack.test.support.ts";
import { type Bench, createJob, drawPicture, send, startBench } from "./bench.test.support.ts";

/** Longest that reading may take here, s. */
const READING_S = 5;
/** What ends a test that hangs, ms: for a machine much slower and busier than a quiet one. */
const PATIENCE_MS = 90_000;
const cache = mkdtempSync(join(tmpdir(), "plain-palette-cache-"));
let bench: Bench;
beforeAll(async () => {
  const limits = { READING_S: `${READING_S}`, PROCESSES: "2", CACHE_FOLDER: cache, CACHE_MB: "1" };
  bench = await startBench(limits);
});
afterAll(async () => {
  await bench.stop();
  rmSync(cache, { recursive: true });
});

/** Processes that the server has started, and what they have started: pid, user and command. */
function underServer(): { pid: number; user: string; args: string }[] {
  const lines = execFileSync("ps", ["-eo", "pid,ppid,user,args"], { encoding: "utf8" }).split("\n").slice(1);
  const all = lines.map((line) => /^\s*(\d+)\s+(\d+)\s+(\S+)\s+(.*)$/.exec(line)).filter((match) => match !== null);
  const below = (pid: number): { pid: number; user: string; args: string }[] =>
    all
      .filter(([, , parent]) => Number(parent) === pid)
      .flatMap(([, child = "", , user = "", args = ""]) => [
        { pid: Number(child), user, args },
        ...below(Number(child)),
      ]);
  return below(bench.server().child.pid ?? 0);
}
const readers = () => underServer().filter(({ args }) => args.includes("child.js reading"));

async function post(bytes: Buffer, client = "test", path = "/jobs?name=x", signal?: AbortSignal) {
  const started = performance.now();
  const response = await fetch(`${bench.url()}/api${path}`, {
    method: "POST",
    body: new Uint8Array(bytes),
    headers: { "Content-Type": "application/octet-stream", [OWN_HEADER]: client },
    ...(signal ? { signal } : {}),
  });
  return { status: response.status, body: await response.json(), tookS: (performance.now() - started) / 1000 };
}
async function stateOfReading(): Promise<{ processes: number; working: number; waiting: number }> {
  const { body } = await send(bench.url(), "GET", "/health");
  return (body as { reading: { processes: number; working: number; waiting: number } }).reading;
}
const attack = (name: string) => ATTACKS.find((one) => one.name.startsWith(name))?.bytes() ?? Buffer.alloc(0);
/** Takes a renderer some minutes. */
const SLOW = "turbulence of many octaves";

async function until(isSo: () => boolean | Promise<boolean>, patienceMs = PATIENCE_MS): Promise<void> {
  for (const end = Date.now() + patienceMs; !(await isSo()); ) {
    if (Date.now() > end) throw new Error("it did not come to that");
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

describe("a file that takes whoever opens it for good", () => {
  it.each(ATTACKS.map((one) => one.name))("%s: an answer in time, and the next file is taken", async (name) => {
    const answer = await post(attack(name));
    expect([201, 413, 422]).toContain(answer.status);
    expect(answer.tookS).toBeLessThan(PATIENCE_MS / 1000);
    if (answer.status !== 201) expect(problemSchema.parse(answer.body).detail).toBeTruthy();
    expect((await createJob(bench.url(), await drawPicture(1))).artwork.width).toBe(120);
  });

  it("leaves no process, and none of what poppler started", async () => {
    await post(attack("a PDF page of a million strokes"));
    await until(() => !underServer().some(({ args }) => args.includes("pdf")));
    expect(readers().length).toBeGreaterThan(0);
    expect(readers().length).toBeLessThanOrEqual(2);
  });

  it("as a file of stock: refused by its depth, in no time, and the server answers meanwhile", async () => {
    const reading = post(nestedXml(500_000), "test", "/shelf/file?kind=ink");
    const asked = performance.now();
    await send(bench.url(), "GET", "/health");
    expect(performance.now() - asked).toBeLessThan(10_000);
    const { status, body } = await reading;
    expect(status).toBe(422);
    expect(JSON.stringify(body)).toContain("nested more than");
  });
});

describe("the processes", () => {
  it("have nobody's rights, and see no network", async () => {
    await post(await drawPicture(2));
    // As anybody but root the server has no rights to give up; one that is still reading its code has not yet.
    const own = process.getuid?.() === 0 ? "nobody" : execFileSync("id", ["-un"], { encoding: "utf8" }).trim();
    await until(() => readers().some(({ user }) => user === own));
    const reader = readers().find(({ user }) => user === own);
    const devices = execFileSync("cat", [`/proc/${reader?.pid}/net/dev`], { encoding: "utf8" });
    expect(
      devices
        .split("\n")
        .filter((line) => /^\s*\w+:/.test(line))
        .map((line) => line.trim().split(":")[0]),
    ).toEqual(["lo"]);
    const environment = execFileSync("cat", [`/proc/${reader?.pid}/environ`], { encoding: "latin1" });
    expect(environment).not.toContain("DATABASE_URL");
  });

  it("killed at their work are replaced, and the file is read all the same", async () => {
    const reading = post(await drawPicture(3, 3500));
    await new Promise((resolve) => setTimeout(resolve, 120));
    for (const { pid } of readers()) process.kill(pid, "SIGKILL");
    expect((await reading).status).toBe(201);
  });

  it("end when the server is killed", async () => {
    const abandoned = post(attack(SLOW)).catch(() => null);
    await new Promise((resolve) => setTimeout(resolve, 500));
    const before = readers().map(({ pid }) => pid);
    expect(before.length).toBeGreaterThan(0);
    await bench.killServer();
    await abandoned;
    const alive = (pid: number) => {
      try {
        return /^State:\s+[^Z]/m.test(
          execFileSync("cat", [`/proc/${pid}/status`], { encoding: "utf8", stdio: "pipe" }),
        );
      } catch {
        return false;
      }
    };
    await until(() => !before.some(alive));
  });
});

describe("fair admission", () => {
  it("slow files of one do not make another's fail, whose time begins when its work does", async () => {
    let answered = 0;
    const slow = Array.from({ length: 5 }, () =>
      post(attack(SLOW), "one").then(({ status }) => {
        answered++;
        return status;
      }),
    );
    await until(async () => (await stateOfReading()).waiting >= 3);
    const other = await post(await drawPicture(4), "other");
    expect(other.status).toBe(201);
    // Two at a time take the first of the slow ones; the other's comes before the last of them.
    expect(answered).toBeLessThan(5);
    expect(await Promise.all(slow)).toEqual([422, 422, 422, 422, 422]);
  });

  it("what nobody waits for any more is given up at once", async () => {
    const abort = new AbortController();
    await until(async () => (await stateOfReading()).working === 0);
    const abandoned = post(attack(SLOW), "one", undefined, abort.signal).catch(() => null);
    await until(async () => (await stateOfReading()).working === 1);
    abort.abort();
    await abandoned;
    // Sooner than its time would have been over.
    await until(async () => (await stateOfReading()).working === 0, (READING_S - 1) * 1000);
    expect((await post(await drawPicture(5), "one")).status).toBe(201);
  });

  it("a full house says 503 and when to come again, and lets in again what there is room for", async () => {
    const { hostname, port } = new URL(bench.url());
    // Each says that it brings 64 MB, and brings one byte: sixteen fill the house.
    const answers = new Map<number, string>();
    const held = Array.from({ length: 24 }, (_, i) => {
      const socket = connect(Number(port), hostname);
      socket.on("error", () => {});
      socket.on("data", (piece) => answers.set(i, `${answers.get(i) ?? ""}${piece}`));
      socket.write(
        `POST /api/jobs?name=x HTTP/1.1\r\nHost: ${hostname}:${port}\r\n${OWN_HEADER}: window${i}\r\nContent-Type: application/octet-stream\r\nContent-Length: ${64 * 2 ** 20}\r\n\r\nx`,
      );
      return socket;
    });
    await until(() => answers.size >= 8);
    for (const answer of answers.values()) {
      expect(answer).toMatch(/^HTTP\/1.1 503 /);
      expect(answer).toMatch(/\r\nRetry-After: [1-9]/);
      expect(answer).toContain("Nothing was changed.");
    }
    const picture = await drawPicture(6);
    const ask = () => send(bench.url(), "POST", "/jobs?name=x", picture);
    for (const socket of held) socket.destroy();
    await until(async () => (await ask()).status === 201);
  });
});

describe("decoded pixels", () => {
  it("are kept for the next time, bounded in size, and are the same", async () => {
    const { artwork } = await createJob(bench.url(), await drawPicture(7, 300));
    const pixels = async (query: string) =>
      Buffer.from(await (await fetch(`${bench.url()}/api/artworks/${artwork.hash}/pixels${query}`)).arrayBuffer());
    const kept = () => readdirSync(cache).filter((name) => name.startsWith(artwork.hash));
    expect(kept().length).toBe(1);
    const first = await pixels("");
    rmSync(join(cache, kept()[0] ?? ""));
    expect((await pixels("?page=1")).equals(first)).toBe(true);
    expect(kept().length).toBe(1);
    // Twenty-four of these do not fit into a megabyte.
    for (let seed = 0; seed < 24; seed++) {
      const noise = Buffer.from(
        Array.from({ length: 300 * 300 * 3 }, (_, i) => Math.imul(i + seed, 2654435761) >>> 24),
      );
      await createJob(
        bench.url(),
        await sharp(noise, { raw: { width: 300, height: 300, channels: 3 } })
          .png()
          .toBuffer(),
      );
    }
    const bytes = readdirSync(cache).reduce((sum, name) => sum + statSync(join(cache, name)).size, 0);
    expect(bytes).toBeLessThanOrEqual(2 ** 20);
    expect(bytes).toBeGreaterThan(2 ** 19);
  });
});

describe("memory", () => {
  it("that a large picture took is given back once there is nothing to do", async () => {
    const held = () =>
      Math.max(
        ...readers().map(
          ({ pid }) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))?.[1] ?? 0) / 1024,
        ),
      );
    const large = await sharp({ create: { width: 5500, height: 5500, channels: 4, background: "#1f7a8c" } })
      .png()
      .toBuffer();
    expect((await post(large)).status).toBe(201);
    await expect.poll(held, { timeout: PATIENCE_MS }).toBeLessThan(320);
    expect((await post(await drawPicture(3))).status).toBe(201);
  });
});

// The last one: the server stays as it is made here.
it("files are read, too, where the shop was started as something that matters less", async () => {
  const { pid = 0 } = bench.server().child;
  execFileSync("renice", ["-n", "12", "-p", `${pid}`]);
  for (const reader of underServer()) process.kill(reader.pid, "SIGKILL");
  await createJob(bench.url(), await drawPicture(77));
  expect(underServer().length).toBeGreaterThan(0);
});
