// A thread that helps the computing worker.
import { makeHelp, type PartMessage } from "@plain-palette/core/share";
import { taskOf } from "@plain-palette/core/tasks";

const help = makeHelp(taskOf);
self.onmessage = ({ data }: MessageEvent<PartMessage>) => self.postMessage(help(data));
self.postMessage("here");
