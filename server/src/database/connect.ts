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
import { bringUpToDate } from "./migrate.ts";
import { ArtworkRevisions1764050400000 } from "./migrations/artwork-revisions.ts";
import { ClientsYes1795834800000 } from "./migrations/clients-yes.ts";
import { FirstSchema1764028800000 } from "./migrations/first-schema.ts";
import { JobPictures1764151200000 } from "./migrations/job-pictures.ts";
import { KeptStones1795804000000 } from "./migrations/kept-stones.ts";
import { Motifs1795831200000 } from "./migrations/motifs.ts";
import { Processes1764237600000 } from "./migrations/processes.ts";
import { SentOnce1796025600000 } from "./migrations/sent-once.ts";
import { Shelf1764064800000 } from "./migrations/shelf.ts";
import { StandingFirm1795939200000 } from "./migrations/standing-firm.ts";
import { TransferFilm1795716000000 } from "./migrations/transfer-film.ts";
import { Typefaces1795820400000 } from "./migrations/typefaces.ts";

/** Opens the database and brings its schema up to date; what is in it is dumped into `dumpFolder` before that. */
export async function connectDatabase(url: string, dumpFolder: string): Promise<DataSource> {
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
      StandingFirm1795939200000,
      SentOnce1796025600000,
    ],
    // A fresh connection a request, if need be: a database that was restarted is found again.
    extra: { connectionLimit: 8, enableKeepAlive: true },
  });
  await source.initialize();
  await bringUpToDate(source, url, dumpFolder);
  return source;
}
