export { connectDatabase, isDatabaseAway } from "./connect.ts";
export {
  ArtworkEntity,
  type ArtworkRow,
  JobEntity,
  type JobRow,
  RecipeEntity,
  type RecipeRow,
  RunEntity,
  RunFileEntity,
  type RunRow,
} from "./entities.ts";
