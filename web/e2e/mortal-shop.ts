// A shop of its own whose server dies and comes back, while its database lives on.
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startMariaDb } from "../../tools/database/mariadb.ts";
import { ROOT, startServer } from "../../tools/server-process.ts";
import { mortalPort } from "./shops.ts";

export interface MortalShop {
  /** SIGKILL: whatever is in hand is lost. */
  die(): Promise<void>;
  comeBack(): Promise<void>;
  close(): Promise<void>;
}

export async function openMortalShop(): Promise<MortalShop> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-mortal-"));
  const database = await startMariaDb(folder);
  const start = () =>
    startServer({
      ...{ DATABASE_URL: database.url, WEB_ROOT: join(ROOT, "web", "dist"), PORT: `${mortalPort()}` },
      CLIENT_PORT: `${mortalPort() + 1}`,
    });
  let server = await start();
  return {
    die: () => server.kill(),
    async comeBack() {
      server = await start();
    },
    async close() {
      await server.stop();
      await database.stop();
      rmSync(folder, { recursive: true });
    },
  };
}
