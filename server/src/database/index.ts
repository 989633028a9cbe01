export { connectDatabase } from "./connect.ts";
export {
  ArtworkEntity,
  type ArtworkRow,
  JobEntity,
  JobPictureEntity,
  type JobRow,
  PlacementEntity,
  type PlacementRow,
  RecipeEntity,
  type RecipeRow,
  RunEntity,
  RunFileEntity,
  type RunRow,
  SettingsEntity,
  StockEntity,
  type StockRow,
  TypefaceEntity,
  type TypefaceRow,
} from "./entities.ts";
export { isDatabaseAway, isDatabaseFull, isDeadlock, isMixedUp, isThereAlready } from "./errors.ts";
export { inTransaction } from "./transaction.ts";
