// What takes room in the shop, and what of it is not needed any more.
import { z } from "zod";

const heapSchema = z.object({ files: z.number().int(), bytes: z.number() });

export const ROOM_KINDS = ["artworks", "versions", "runs", "typefaces", "pixels", "dumps"] as const;
export type RoomKind = (typeof ROOM_KINDS)[number];

/** A kind of things that are kept, and how much of it goes by its rule. */
export const roomPartSchema = z.object({ kind: z.enum(ROOM_KINDS), kept: heapSchema, goes: heapSchema });
export type RoomPart = z.infer<typeof roomPartSchema>;

export const roomSchema = z.object({
  parts: z.array(roomPartSchema),
  /** What the disk has left; null where it is not watched. */
  freeBytes: z.number().nullable(),
});
export type Room = z.infer<typeof roomSchema>;
