// One Plain Palette to a data folder: whoever comes second learns who is there, and touches nothing.
import { createHash } from "node:crypto";
import { connect, createServer } from "node:net";
import { resolve } from "node:path";

/** What runs on a folder, in words for whoever wants it, too. */
export interface Claim {
  /** Where it is reached, once that is known. */
  tell(url: string): void;
}

/**
 * Takes the folder for this process as long as it lives: by a socket that only has a name (unix(7), abstract), which goes
 * with the process however it ends. Throws, naming the process, if another one has it.
 */
export async function claimFolder(folder: string): Promise<Claim> {
  const name = `\0plain-palette-${createHash("sha256").update(resolve(folder)).digest("hex").slice(0, 32)}`;
  let url = "";
  const server = createServer((socket) => socket.end(JSON.stringify({ pid: process.pid, url })));
  const isOurs = await new Promise<boolean>((done) => {
    server.once("error", () => done(false));
    server.listen(name, () => done(true));
  });
  if (!isOurs) throw new Error(await whoHas(name, folder));
  server.unref();
  return {
    tell(known) {
      url = known;
    },
  };
}

function whoHas(name: string, folder: string): Promise<string> {
  return new Promise((done) => {
    let said = "";
    const socket = connect(name);
    socket.on("data", (piece) => {
      said += piece;
    });
    socket.on("error", () => {});
    socket.on("close", () => {
      const { pid, url } = said ? JSON.parse(said) : { pid: null, url: "" };
      const where = url ? `, at ${url}` : "";
      const end = pid ? ` To end it: kill ${pid}` : "";
      done(
        `Plain Palette runs on ${folder} already${pid ? ` (process ${pid})` : ""}${where}. Nothing was touched.${end}`,
      );
    });
  });
}
