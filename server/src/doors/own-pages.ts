// Pages of others that a browser in the shop has open: they may send requests here, under any name that leads here. Only
// our own names are answered, and only our own pages, or programs, may change anything.
import { OWN_HEADER } from "@plain-palette/contract";
import type { Request, RequestHandler } from "express";
import { ProblemError } from "../problems/index.ts";

const LOOPBACK = new Set(["localhost", "127.0.0.1", "[::1]"]);
/** What a form of any page can send without asking (Fetch standard, CORS-safelisted request-header). */
const FORM_TYPES = /^(text\/plain|multipart\/form-data|application\/x-www-form-urlencoded)\b/i;

/**
 * `addresses`: how the door is reached besides loopback names and the address that a request came in on, as
 * https://shop.example.org.
 */
export function ownPagesOnly(addresses: readonly string[]): RequestHandler {
  const known = addresses.map((address) => new URL(address));
  return (request, _response, next) => {
    const host = request.headers.host ?? "";
    if (!isOurs(host, request, known))
      throw new ProblemError({
        title: "This is not an address of the shop",
        status: 421,
        detail: `It was asked for as "${host.slice(0, 100)}".`,
        cure: "Open Plain Palette by the address that its start says, or name this one in SHOP_URL.",
      });
    if (request.method === "GET" || request.method === "HEAD") return next();
    const { origin } = request.headers;
    const isOwnPage =
      origin === undefined
        ? request.get(OWN_HEADER) !== undefined
        : origin === `http://${host}` || known.some((url) => url.origin === origin);
    if (!isOwnPage)
      throw new ProblemError({
        title: "Another page may not change anything here",
        status: 403,
        kept: "Nothing was changed.",
      });
    if (FORM_TYPES.test(request.get("Content-Type") ?? ""))
      throw new ProblemError({
        title: "Requests come as JSON, or as the bytes of a file",
        status: 415,
        kept: "Nothing was changed.",
      });
    next();
  };
}

function isOurs(host: string, { socket }: Request, known: readonly URL[]): boolean {
  const name = /^(\[[0-9a-f:.]+\]|[^:]+)(:\d+)?$/i.exec(host)?.[1]?.toLowerCase();
  if (name === undefined) return false;
  // An address in numbers cannot be made to lead here by anybody else.
  const local = (socket.localAddress ?? "").replace(/^::ffff:/, "");
  return (
    LOOPBACK.has(name) || name === local || name === `[${local}]` || known.some(({ hostname }) => hostname === name)
  );
}
