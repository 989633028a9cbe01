export { type Silhouette, silhouetteFor } from "./silhouettes.ts";
