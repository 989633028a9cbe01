// All that the shop has, as one file: the database's own dump of one moment, packed, ending with the sum of all before it.
import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream } from "node:fs";
import { Transform, type TransformCallback, Writable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { createGunzip, createGzip } from "node:zlib";
import { createConnection } from "mysql2/promise";

/** A dump that is not as it was written, or has nowhere to go. */
export class DumpError extends Error {
  override readonly name = "DumpError";
}

const SEAL_WORDS = "-- Plain Palette, SHA-256 of all before this line: ";
const SEAL = new RegExp(`^${SEAL_WORDS}([0-9a-f]{64})\\n$`);
const SEAL_BYTES = SEAL_WORDS.length + 64 + 1;

/** How one of MariaDB's programs comes to a database; the password is no argument, which anybody could read. */
function reaching(url: string): { args: string[]; database: string; env: NodeJS.ProcessEnv } {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [
      ...["--no-defaults", "--protocol=tcp", `--host=${hostname}`, `--port=${port || 3306}`, `--user=${username}`],
      ...["--max-allowed-packet=256M", "--default-character-set=utf8mb4"],
    ],
    database: pathname.slice(1),
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
  };
}

/** Writes a dump of one moment, while others write: a consistent snapshot (InnoDB). Throws a DumpError. */
export async function writeDump(url: string, path: string): Promise<void> {
  const { args, database, env } = reaching(url);
  const consistent = ["--single-transaction", "--quick", "--hex-blob", "--skip-lock-tables", "--no-tablespaces"];
  const dump = spawn("mariadb-dump", [...args, ...consistent, database], { env, stdio: ["ignore", "pipe", "pipe"] });
  const written = pipeline(dump.stdout, sealing(), createGzip(), createWriteStream(path, { mode: 0o600 }));
  await Promise.all([endOf(dump, "mariadb-dump"), written]);
}

/** Adds the sum of what goes through, at its end. */
function sealing(): Transform {
  const hash = createHash("sha256");
  return new Transform({
    transform(piece: Buffer, _encoding, done: TransformCallback) {
      hash.update(piece);
      done(null, piece);
    },
    flush(done) {
      done(null, `${SEAL_WORDS}${hash.digest("hex")}\n`);
    },
  });
}

/** Reads a dump to its end. Throws a DumpError unless it is just as it was written. */
export async function checkDump(path: string): Promise<void> {
  const hash = createHash("sha256");
  let held = Buffer.alloc(0);
  const reader = new Writable({
    write(piece: Buffer, _encoding, done) {
      held = Buffer.concat([held, piece]);
      const sure = Math.max(0, held.length - SEAL_BYTES);
      hash.update(held.subarray(0, sure));
      held = held.subarray(sure);
      done();
    },
  });
  const broken = () =>
    new DumpError(`${path} is not as it was written: it was cut off or changed. Nothing was taken from it.`);
  try {
    await pipeline(createReadStream(path), createGunzip(), reader);
  } catch (error) {
    if (error instanceof Error && "code" in error && error.code === "ENOENT")
      throw new DumpError(`There is no file ${path}.`);
    throw broken();
  }
  if (SEAL.exec(held.toString("latin1"))?.[1] !== hash.digest("hex")) throw broken();
}

/** Puts a dump into an empty database. Throws a DumpError, before anything is done, for one that is damaged or has no room. */
export async function restoreDump(url: string, path: string): Promise<void> {
  await checkDump(path);
  const connection = await createConnection(url);
  const [tables] = await connection.query("SHOW TABLES").finally(() => connection.end());
  if (Array.isArray(tables) && tables.length > 0)
    throw new DumpError("There is something in this database already. A backup is restored into an empty one.");
  const { args, database, env } = reaching(url);
  const client = spawn("mariadb", [...args, "--batch", database], { env, stdio: ["pipe", "ignore", "pipe"] });
  const read = pipeline(createReadStream(path), createGunzip(), client.stdin);
  await Promise.all([endOf(client, "mariadb"), read]);
}

function endOf(child: ReturnType<typeof spawn>, program: string): Promise<void> {
  let complaint = "";
  child.stderr?.on("data", (piece: Buffer) => {
    complaint = (complaint + piece.toString("utf8")).slice(-2000);
  });
  return new Promise((resolve, reject) => {
    child.once("error", (error) => reject(new DumpError(`${program} does not start: ${error.message}`)));
    child.once("close", (code) => {
      if (code === 0) resolve();
      else reject(new DumpError(`${program} gave up: ${complaint.trim()}`));
    });
  });
}
