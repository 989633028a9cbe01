export { readShippedFiles, shippedTypefaces } from "./shipped-files.ts";
