export { SILHOUETTE_NAMES, type Silhouette, silhouetteFor, silhouetteOf } from "./silhouettes.ts";
