// How many files may be on their way in at once: so that memory holds them, and nobody takes all the room.
import type { IncomingMessage, ServerResponse } from "node:http";
import express from "express";
import { busy } from "../problems/index.ts";
import { clientOf } from "./asker.ts";

/** Room for the bytes of files that come in, of all and of one client, and how many a client may send at once. */
const ROOM_BYTES = 2 ** 30;
const SHARE_BYTES = 0.75 * ROOM_BYTES;
const SHARE_FILES = 40;

type Receiver = (request: IncomingMessage, response: ServerResponse, next: (error?: unknown) => void) => void;

interface Share {
  bytes: number;
  files: number;
}

let taken = 0;
const shares = new Map<string, Share>();

/**
 * Takes the file of at most `limit` bytes that a request brings, of whatever type, when there is room for it; else its
 * sender is told to come again, and what it sends is read and thrown away, so that it hears that.
 */
export function receiveFile(limit: number): Receiver {
  const receive = express.raw({ type: () => true, limit });
  return (request, response, next) => {
    const length = Number(request.headers["content-length"] ?? limit);
    const bytes = Math.min(length, limit);
    const client = clientOf(request);
    const share = shares.get(client) ?? { bytes: 0, files: 0 };
    const isFull = taken + bytes > ROOM_BYTES || share.bytes + bytes > SHARE_BYTES || share.files >= SHARE_FILES;
    if (isFull && taken > 0) {
      request.resume();
      throw busy("So many files are on their way that there is no room for another");
    }
    taken += bytes;
    shares.set(client, { bytes: share.bytes + bytes, files: share.files + 1 });
    response.once("close", () => {
      taken -= bytes;
      const now = shares.get(client) ?? { bytes, files: 1 };
      if (now.files === 1) shares.delete(client);
      else shares.set(client, { bytes: now.bytes - bytes, files: now.files - 1 });
    });
    receive(request, response, next);
  };
}
