export { receiveFile } from "./admission.ts";
export { Abandoned, askerOf } from "./asker.ts";
export { securityHeaders } from "./headers.ts";
export { ownPagesOnly } from "./own-pages.ts";
export { type Disk, watchDisk } from "./room.ts";
