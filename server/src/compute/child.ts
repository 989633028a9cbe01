// A working process: reads its code, gives up its rights, then does one task after the other until its server is gone.
import { Socket } from "node:net";
import { getPriority, setPriority } from "node:os";
import { Worker } from "node:worker_threads";
import { dropRights } from "./confine.ts";
import { readFrames, writeFrame } from "./frames.ts";
import type { Answer, Order, Tasks } from "./hand.ts";

/** Pipes besides the usual three: `LIFE` ends when the server does, answers go out on `ANSWERS`. */
const LIFE = 3;
const ANSWERS = 4;

const [, , which, niceness] = process.argv;
const tasks: Tasks = which === "reading" ? await import("./reading.ts") : await import("./making.ts");
await tasks.prepare();
// In a thread, so that it sees the server go while a picture library or a loop of ours holds everything else. It ends the
// group: whatever this process started goes with it.
new Worker(
  `const { Socket } = require("node:net");
   const life = new Socket({ fd: ${LIFE} });
   life.on("error", () => {}).on("close", () => process.kill(-process.pid, "SIGKILL")).resume();`,
  { eval: true, execArgv: [] },
).unref();

dropRights();
// Who started all of it may have stepped back already; only root steps forward again.
setPriority(Math.max(getPriority(), Number(niceness)));

const out = new Socket({ fd: ANSWERS, readable: false, writable: true });
out.on("error", () => {});
// Nobody to answer to: the server is gone, and its life line ends what is left.
const say = (answer: Answer) => writeFrame(out, answer).catch(() => process.exit(1));

async function work({ name, input }: Order): Promise<void> {
  try {
    const value = await tasks.run(name, input, (progress) => void say({ kind: "progress", progress }));
    const { user, system } = process.cpuUsage();
    await say({ kind: "done", value, spent: { processorS: (user + system) / 1e6, memory: process.memoryUsage.rss() } });
  } catch (error) {
    await say({ kind: "failed", message: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
}

readFrames(
  process.stdin,
  (message) => void work(message as Order),
  () => process.exit(1),
);
await say({ kind: "ready" });
