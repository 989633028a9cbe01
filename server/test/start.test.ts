import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { jobListSchema } from "@plain-palette/contract";
import { afterAll, describe, expect, it } from "vitest";
import { findFreePort } from "../../tools/database/mariadb.ts";
import { ROOT } from "../../tools/server-process.ts";
import { send } from "./bench.test.support.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-start-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function start(port: number): Promise<{ child: ChildProcess; url: string }> {
  const child = spawn(process.execPath, ["--import", "tsx", "tools/start.ts"], {
    cwd: ROOT,
    env: { ...process.env, DATA_FOLDER: folder, PORT: String(port) },
    stdio: ["ignore", "pipe", "inherit"],
    detached: true,
  });
  let written = "";
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout?.on("data", (chunk) => {
      written += chunk;
      const found = /Plain Palette is at (\S+)/.exec(written)?.[1];
      if (found) resolve(found);
    });
    child.once("exit", (code) => reject(new Error(`start ended with ${code}: ${written}`)));
  });
  return { child, url };
}

function processesOn(what: string): string[] {
  const all = execFileSync("ps", ["-eo", "pid,args"], { encoding: "utf8" }).split("\n");
  return all.filter((line) => line.includes(what) && !line.includes("ps -eo"));
}

describe("npm start", () => {
  it("seeds once, ends everything on Ctrl+C, and recovers after a crash of all its processes but the database", async () => {
    const port = await findFreePort();
    const first = await start(port);
    const titles = async () =>
      jobListSchema
        .parse((await send(first.url, "GET", "/jobs")).body)
        .map((job) => job.client)
        .sort();
    const demo = [
      "Hearth & Rye",
      "Kite Sunday committee",
      "Lantern Quay Pilots",
      "Saltmarsh Rowing Club",
      "Tern Island Ferry",
    ];
    expect(await titles()).toEqual(demo);
    const page = await fetch(first.url);
    expect(await page.text()).toContain("<title>Plain Palette</title>");

    const ended = new Promise((resolve) => first.child.once("exit", resolve));
    first.child.kill("SIGINT");
    expect(await ended).toBe(0);
    expect(processesOn(folder)).toEqual([]);

    const second = await start(port);
    expect(await titles()).toEqual(demo);
    const server = processesOn("server/src/main.ts")
      .map((line) => Number.parseInt(line, 10))
      .filter((pid) => isChildOf(pid, second.child.pid ?? 0));
    second.child.kill("SIGKILL");
    for (const pid of server) process.kill(pid, "SIGKILL");
    expect(processesOn(folder).length).toBeGreaterThan(0);

    const third = await start(port);
    expect(await titles()).toEqual(demo);
    const over = new Promise((resolve) => third.child.once("exit", resolve));
    third.child.kill("SIGTERM");
    await over;
    expect(processesOn(folder)).toEqual([]);
  }, 120_000);
});

function isChildOf(pid: number, parent: number): boolean {
  const line = execFileSync("ps", ["-o", "ppid=", "-p", String(pid)], { encoding: "utf8" });
  return Number(line) === parent;
}
