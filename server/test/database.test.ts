// The database is the shop's own: nobody else on the machine comes in, and nothing in it reaches the machine.
import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { createConnection } from "mysql2/promise";
import { afterAll, beforeAll, expect, it } from "vitest";
import { type MariaDb, startMariaDb } from "../../tools/database/mariadb.ts";

const folder = mkdtempSync(join(tmpdir(), "plain-palette-own-"));
let database: MariaDb;
beforeAll(async () => {
  database = await startMariaDb(folder);
});
afterAll(async () => {
  await database.stop();
  rmSync(folder, { recursive: true });
});

async function ask(sql: string): Promise<unknown> {
  const connection = await createConnection(database.url);
  return (await connection.query(sql).finally(() => connection.end()))[0];
}

it("nobody comes in without the password, by whatever name and way", async () => {
  const { port } = new URL(database.url);
  const socket = join(folder, "mariadb.sock");
  for (const user of ["root", "", "mysql", "mariadb.sys", "plain_palette"]) {
    for (const host of ["127.0.0.1", "localhost"])
      await expect(createConnection({ host, port: Number(port), user })).rejects.toThrow(/denied|not allowed|refused/i);
    await expect(createConnection({ socketPath: socket, user })).rejects.toThrow(/denied|not allowed/i);
  }
});

it("its account has its own tables and nothing besides: no files, no processes, no other accounts", async () => {
  const grants = JSON.stringify(await ask("SHOW GRANTS"));
  expect(grants).toContain("GRANT USAGE ON *.*");
  expect(grants).toContain("GRANT ALL PRIVILEGES ON `plain_palette`.*");
  expect(grants.match(/GRANT /g)?.length).toBe(2);
  await expect(ask("SELECT LOAD_FILE('/etc/hostname') AS f")).resolves.toEqual([{ f: null }]);
  await expect(ask(`SELECT 1 INTO OUTFILE '${join(folder, "x")}'`)).rejects.toThrow(/denied/i);
  await expect(ask("SELECT User FROM mysql.user")).rejects.toThrow(/denied/i);
});

it("it runs as a user of its own, and nobody else reads its files", () => {
  const user = execFileSync("ps", ["-o", "user=", "-p", `${database.pid}`], { encoding: "utf8" }).trim();
  expect(user).toBe(process.getuid?.() === 0 ? "mysql" : execFileSync("id", ["-un"], { encoding: "utf8" }).trim());
  expect(statSync(folder).mode & 0o077).toBe(0);
});

it("it starts again on what it has, with the accounts as they were", async () => {
  const port = Number(new URL(database.url).port);
  await ask("CREATE TABLE kept (n INT)");
  await database.stop();
  database = await startMariaDb(folder, port);
  expect(await ask("SHOW TABLES")).toHaveLength(1);
});
