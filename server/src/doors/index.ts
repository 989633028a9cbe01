export { receiveFile } from "./admission.ts";
export { Abandoned, askerOf, clientOf } from "./asker.ts";
export { securityHeaders } from "./headers.ts";
export { ownPagesOnly } from "./own-pages.ts";
export { type Disk, watchDisk } from "./room.ts";
