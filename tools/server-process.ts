// The application's server as a process of its own, for start, tests and screenshots.
import { type ChildProcess, spawn } from "node:child_process";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const ROOT = fileURLToPath(new URL("..", import.meta.url));

export interface ServerProcess {
  readonly url: string;
  /** Of the clients' door. */
  readonly clientUrl: string;
  readonly child: ChildProcess;
  /** What it wrote so far. */
  output(): string;
  /** Resolves when it ends, whatever ends it. */
  readonly ended: Promise<void>;
  /** Asks it to end, and does not ask for ever. */
  stop(): Promise<void>;
  /** SIGKILL: nothing is tidied up. */
  kill(): Promise<void>;
}

const BUILT = join("server", "dist", "main.js");

/** How long it may take to let go of what it has in hand, ms. */
const PATIENCE_MS = 6000;

/**
 * Starts the server as it was built (`program`: another build of it) and waits until it listens; `isHeard`: what it writes is
 * written here, too. It ends when the process that started it does.
 */
export function startServer(
  environment: Record<string, string>,
  { isHeard = false, program = BUILT }: { isHeard?: boolean; program?: string } = {},
): Promise<ServerProcess> {
  const child = spawn("setpriv", ["--pdeathsig=TERM", process.execPath, program], {
    cwd: ROOT,
    env: { ...process.env, ...environment },
    stdio: ["ignore", "pipe", "pipe"],
    // Ctrl+C ends it through stop(), in order.
    detached: true,
  });
  let written = "";
  const ended = new Promise<void>((resolve) => child.once("exit", () => resolve()));
  const end = (signal: NodeJS.Signals) => {
    if (child.exitCode === null && child.signalCode === null) child.kill(signal);
    return ended;
  };
  const stop = async () => {
    const timer = setTimeout(() => end("SIGKILL"), PATIENCE_MS);
    await end("SIGTERM");
    clearTimeout(timer);
  };
  if (isHeard) {
    child.stdout.pipe(process.stdout);
    child.stderr.pipe(process.stderr);
  }
  return new Promise((resolve, reject) => {
    const take = (chunk: Buffer) => {
      written += chunk;
      const url = /listening on (http:\S+)/.exec(written)?.[1];
      const clientUrl = /clients' door on (http:\S+)/.exec(written)?.[1] ?? "";
      if (url)
        resolve({
          url,
          clientUrl,
          child,
          output: () => written,
          ended,
          stop,
          kill: () => end("SIGKILL"),
        });
    };
    child.stdout.on("data", take);
    child.stderr.on("data", take);
    child.once("exit", (code) => reject(new Error(`the server ended with ${code}:\n${written}`)));
  });
}
