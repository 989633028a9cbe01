export { readShippedFile, readShippedFiles, shippedTypefaces } from "./shipped-files.ts";
