export { connectDatabase, isDatabaseAway, isDatabaseFull, isMixedUp } from "./connect.ts";
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
  TypefaceEntity,
  type TypefaceRow,
} from "./entities.ts";
