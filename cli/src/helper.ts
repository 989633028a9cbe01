// A thread that helps the shell.
import { parentPort } from "node:worker_threads";
import { makeHelp, type PartMessage } from "@plain-palette/core/share";
import { taskOf } from "@plain-palette/core/tasks";

const help = makeHelp(taskOf);
parentPort?.on("message", (message: PartMessage) => parentPort?.postMessage(help(message)));
