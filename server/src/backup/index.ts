export { checkDump, DumpError, restoreDump, writeDump } from "./dump.ts";
