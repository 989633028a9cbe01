import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { once } from "node:events";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { type AddressInfo, createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, afterEach, describe, expect, it } from "vitest";
import { findFreePort } from "../../tools/database/mariadb.ts";
import { ROOT } from "../../tools/server-process.ts";
import { ATTACKS } from "./attack.test.support.ts";
import { listJobs, send } from "./bench.test.support.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-start-"));
/** All that were started: one that a failed test leaves behind is in nobody's way. */
const started: ChildProcess[] = [];
afterEach(async () => {
  for (const child of started.splice(0)) {
    if (child.exitCode !== null || child.signalCode !== null) continue;
    const ended = once(child, "exit");
    child.kill("SIGTERM");
    await ended;
  }
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Started {
  readonly child: ChildProcess;
  readonly url: string;
  /** What it wrote so far. */
  said(): string;
}

/** Resolves when it is up; rejects with what it wrote if it ends before. */
async function start(port: number): Promise<Started> {
  const child = spawn(process.execPath, ["--import", "tsx", "tools/start.ts"], {
    cwd: ROOT,
    env: { ...process.env, DATA_FOLDER: folder, PORT: String(port) },
    stdio: ["ignore", "pipe", "pipe"],
    detached: true,
  });
  started.push(child);
  let written = "";
  const url = await new Promise<string>((resolve, reject) => {
    const take = (chunk: Buffer) => {
      written += chunk;
      const found = /Plain Palette is at (\S+)/.exec(written)?.[1];
      if (found) resolve(found);
    };
    child.stdout?.on("data", take);
    child.stderr?.on("data", take);
    child.once("exit", (code) => reject(new Error(`start ended with ${code}: ${written}`)));
  });
  return { child, url, said: () => written };
}

function end({ child }: Started, signal: NodeJS.Signals): Promise<number | null> {
  const ended = new Promise<number | null>((resolve) => child.once("exit", resolve));
  child.kill(signal);
  return ended;
}

async function until(isSo: () => boolean | Promise<boolean>, patienceMs = 60_000): Promise<void> {
  for (const last = Date.now() + patienceMs; !(await isSo()); ) {
    if (Date.now() > last) throw new Error("it did not come to that");
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

function processesOn(what: string): string[] {
  const all = execFileSync("ps", ["-eo", "pid,args"], { encoding: "utf8" }).split("\n");
  return all.filter((line) => line.includes(what) && !line.includes("ps -eo"));
}

const isWell = ({ url }: Started) =>
  fetch(`${url}/api/health`).then(
    ({ status }) => status === 200,
    () => false,
  );
const clients = async ({ url }: Started) => (await listJobs(url)).map((job) => job.client).sort();
const DEMO = [
  "Hearth & Rye",
  "Kite Sunday committee",
  "Lantern Quay Pilots",
  "Saltmarsh Rowing Club",
  "Tern Island Ferry",
];

describe("npm start", () => {
  it("seeds once, refuses a second start by name, brings up what dies, and ends everything on Ctrl+C", async () => {
    const port = await findFreePort();
    const shop = await start(port);
    expect(await clients(shop)).toEqual(DEMO);
    expect(await (await fetch(shop.url)).text()).toContain("<title>Plain Palette</title>");

    await expect(start(await findFreePort())).rejects.toThrow(
      new RegExp(`runs on ${folder} already \\(process ${shop.child.pid}\\), at ${shop.url}. Nothing was touched`),
    );
    expect(await isWell(shop)).toBe(true);

    for (const what of ["server/dist/main.js", "mariadbd"]) {
      const [pid] = childrenOf(shop.child.pid ?? 0, what);
      process.kill(pid ?? 0, "SIGKILL");
      await until(() => childrenOf(shop.child.pid ?? 0, what).some((other) => other !== pid));
      await until(() => isWell(shop));
    }
    await until(() => shop.said().includes("The server is up again."));
    expect(shop.said()).toMatch(
      /The server has ended by itself; it is started again in 0.5 s\.[\s\S]*The server is up again\./,
    );
    await until(() => shop.said().includes("The database is up again."));
    expect(await clients(shop)).toEqual(DEMO);

    expect(await end(shop, "SIGINT")).toBe(0);
    expect(processesOn(folder)).toEqual([]);
  }, 240_000);

  it("looks at the port before it touches anything", async () => {
    const taken = createServer().listen(0, "127.0.0.1");
    await once(taken, "listening");
    const { port } = taken.address() as AddressInfo;
    await expect(start(port)).rejects.toThrow(`PORT ${port} is taken by another program. Nothing was touched`);
    expect(processesOn(folder)).toEqual([]);
    taken.close();
  }, 60_000);

  it("ends within 10 s whatever is being read, and when it is killed itself leaves nothing running", async () => {
    const port = await findFreePort();
    const reading = await start(port);
    const slow = ATTACKS.find(({ name }) => name.startsWith("turbulence"))?.bytes() ?? Buffer.alloc(0);
    const answers = [1, 2, 3].map(() => send(reading.url, "POST", "/jobs?name=x", slow).catch(() => null));
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const asked = Date.now();
    await end(reading, "SIGTERM");
    // Half as much again for a machine that is busy with other tests.
    expect(Date.now() - asked).toBeLessThan(15_000);
    await Promise.all(answers);
    expect(processesOn(folder)).toEqual([]);

    const killed = await start(port);
    expect(await clients(killed)).toEqual(DEMO);
    const under = [
      ...childrenOf(killed.child.pid ?? 0, ""),
      ...processesOn(folder).map((line) => Number.parseInt(line, 10)),
    ];
    expect(under.length).toBeGreaterThan(1);
    await end(killed, "SIGKILL");
    await until(() => !under.some((pid) => existsSync(`/proc/${pid}`) && !isDefunct(pid)));

    const again = await start(port);
    expect(await clients(again)).toEqual(DEMO);
    await end(again, "SIGTERM");
  }, 240_000);
});

/** Processes that another one has started, whose command has this in it. */
function childrenOf(parent: number, what: string): number[] {
  const all = execFileSync("ps", ["-eo", "pid=,ppid=,args="], { encoding: "utf8" }).split("\n");
  return all
    .map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line))
    .filter((match) => match !== null && Number(match[2]) === parent && match[3]?.includes(what))
    .map((match) => Number(match?.[1]));
}

function isDefunct(pid: number): boolean {
  return /^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, "utf8"));
}
