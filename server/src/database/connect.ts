// The one connection to MariaDB.
import { DataSource } from "typeorm";
import {
  ArtworkEntity,
  JobEntity,
  JobPictureEntity,
  PlacementEntity,
  RecipeEntity,
  RunEntity,
  RunFileEntity,
  SettingsEntity,
  StockEntity,
  TypefaceEntity,
} from "./entities.ts";
import { ArtworkRevisions1764050400000 } from "./migrations/artwork-revisions.ts";
import { ClientsYes1795834800000 } from "./migrations/clients-yes.ts";
import { FirstSchema1764028800000 } from "./migrations/first-schema.ts";
import { JobPictures1764151200000 } from "./migrations/job-pictures.ts";
import { KeptStones1795804000000 } from "./migrations/kept-stones.ts";
import { Motifs1795831200000 } from "./migrations/motifs.ts";
import { Processes1764237600000 } from "./migrations/processes.ts";
import { Shelf1764064800000 } from "./migrations/shelf.ts";
import { TransferFilm1795716000000 } from "./migrations/transfer-film.ts";
import { Typefaces1795820400000 } from "./migrations/typefaces.ts";

/** Opens the database and brings its schema up to date. */
export async function connectDatabase(url: string): Promise<DataSource> {
  const source = new DataSource({
    type: "mariadb",
    url,
    charset: "utf8mb4",
    timezone: "Z",
    entities: [
      ArtworkEntity,
      JobEntity,
      JobPictureEntity,
      RecipeEntity,
      PlacementEntity,
      RunEntity,
      RunFileEntity,
      StockEntity,
      SettingsEntity,
      TypefaceEntity,
    ],
    migrations: [
      FirstSchema1764028800000,
      ArtworkRevisions1764050400000,
      Shelf1764064800000,
      JobPictures1764151200000,
      Processes1764237600000,
      TransferFilm1795716000000,
      KeptStones1795804000000,
      Typefaces1795820400000,
      Motifs1795831200000,
      ClientsYes1795834800000,
    ],
    // A fresh connection a request, if need be: a database that was restarted is found again.
    extra: { connectionLimit: 8, enableKeepAlive: true },
  });
  await source.initialize();
  await source.runMigrations();
  return source;
}

const LOST = new Set([
  "ECONNREFUSED",
  "ECONNRESET",
  "PROTOCOL_CONNECTION_LOST",
  "EPIPE",
  "ETIMEDOUT",
  "ER_SERVER_SHUTDOWN",
  "PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR",
  "ER_CON_COUNT_ERROR",
]);
const FULL = new Set(["ER_DISK_FULL", "ER_RECORD_FILE_FULL", "ENOSPC"]);
const MIXED = new Set(["ER_CANT_AGGREGATE_2COLLATIONS", "ER_CANT_AGGREGATE_NCOLLATIONS", "ER_TRUNCATED_WRONG_VALUE"]);

/** The code of a database's error, or of what is behind it. */
function codeOf(error: unknown): string {
  if (typeof error !== "object" || error === null) return "";
  if ("driverError" in error && error.driverError !== error) return codeOf(error.driverError);
  return "code" in error && typeof error.code === "string" ? error.code : "";
}

/** Whether an error means that the database is away, not that the request was wrong. */
export const isDatabaseAway = (error: unknown): boolean => LOST.has(codeOf(error));

/** Whether it has no room on its disk. */
export const isDatabaseFull = (error: unknown): boolean => FULL.has(codeOf(error));

/** Whether something was looked for by signs that its column cannot have. */
export const isMixedUp = (error: unknown): boolean => MIXED.has(codeOf(error));
