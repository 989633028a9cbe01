export { roomRoutes } from "./room-routes.ts";
export { makeRoomStore, type RoomStore } from "./room-store.ts";
