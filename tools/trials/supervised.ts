// A shop under its own supervisor, as npm start runs it, on a data folder of its own.
import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { databaseProcess, findFreePort, reachableFolder } from "../database/mariadb.ts";
import { ROOT } from "../server-process.ts";

export interface SupervisedShop {
  readonly url: string;
  databaseUrl(): string;
  /** Processes of the shop by what they are, the supervisor not among them. */
  processes(what: "server" | "reader" | "database"): number[];
  isWell(): Promise<boolean>;
  stop(): Promise<void>;
}

interface Place {
  /** Folder under which it keeps everything. */
  readonly under?: string;
  readonly environment?: Readonly<Record<string, string>>;
}

export async function startSupervised({ under = tmpdir(), environment = {} }: Place = {}): Promise<SupervisedShop> {
  const folder = mkdtempSync(join(under, "plain-palette-trial-"));
  // Trials bring their own jobs.
  writeFileSync(join(folder, "demo-seeded"), "");
  const port = await findFreePort();
  const child = spawn(process.execPath, ["--import", "tsx", "tools/start.ts"], {
    cwd: ROOT,
    env: { ...process.env, ...environment, DATA_FOLDER: folder, PORT: `${port}`, CLIENT_PORT: "0" },
    stdio: ["ignore", "pipe", "inherit"],
    detached: true,
  });
  const url = await untilUp(child);
  const database = reachableFolder(join(folder, "mariadb"));
  return {
    url,
    databaseUrl() {
      const pid = databaseProcess(join(database, "mariadb.pid"));
      const databasePort = /--port=(\d+)/.exec(readFileSync(`/proc/${pid}/cmdline`, "utf8"))?.[1];
      return `mysql://plain_palette:${readFileSync(join(database, "password"), "utf8")}@127.0.0.1:${databasePort}/plain_palette`;
    },
    processes(what) {
      const servers = childrenOf(child.pid ?? 0, "server/dist/main.js");
      if (what === "server") return servers;
      if (what === "database") return childrenOf(child.pid ?? 0, "mariadbd");
      return servers.flatMap((pid) => childrenOf(pid, "child.js"));
    },
    isWell: () =>
      fetch(`${url}/api/health`, { signal: AbortSignal.timeout(3000) }).then(
        ({ status }) => status === 200,
        () => false,
      ),
    async stop() {
      const ended = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGTERM");
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

function untilUp(child: ChildProcess): Promise<string> {
  let said = "";
  return new Promise((resolve, reject) => {
    child.stdout?.on("data", (chunk) => {
      said += chunk;
      const url = /Plain Palette is at (\S+)/.exec(said)?.[1];
      if (url) resolve(url);
    });
    child.once("exit", (code) => reject(new Error(`the shop ended with ${code}: ${said}`)));
  });
}

/** Processes that another one has started, whose command has this in it. */
export function childrenOf(parent: number, what: string): number[] {
  const all = execFileSync("ps", ["-eo", "pid=,ppid=,args="], { encoding: "utf8" }).split("\n");
  return all
    .map((line) => /^\s*(\d+)\s+(\d+)\s+(.*)$/.exec(line))
    .filter((match) => match !== null)
    .filter(([, , of, args = ""]) => Number(of) === parent && args.includes(what))
    .map(([, pid]) => Number(pid));
}
