// Who sent a request, for taking turns; and whether anybody still waits for its answer.

import type { IncomingMessage, ServerResponse } from "node:http";
import { OWN_HEADER } from "@plain-palette/contract";
import type { Asker } from "../compute/index.ts";

/** Nobody waits for the answer any more. */
export class Abandoned extends Error {
  override readonly name = "Abandoned";
}

/** Windows of one shop behind one address are told apart by what they call themselves; a stranger by the address. */
export function clientOf({ socket, headers }: IncomingMessage): string {
  return `${socket.remoteAddress} ${`${headers[OWN_HEADER.toLowerCase()] ?? ""}`.slice(0, 64)}`;
}

export function askerOf(request: IncomingMessage, response: ServerResponse): Asker {
  const abort = new AbortController();
  response.once("close", () => {
    if (!response.writableFinished) abort.abort(new Abandoned("nobody waits any more"));
  });
  return { client: clientOf(request), signal: abort.signal };
}
