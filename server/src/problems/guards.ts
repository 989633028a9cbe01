// What both doors of the server hold against: other sites' pages, and scripts that are not ours.
import type { RequestHandler } from "express";
import helmet from "helmet";
import { ProblemError } from "./problems.ts";

/** A page of another site that a browser here has open must not act on the shop's jobs (Fetch Metadata, W3C). */
export const refuseOtherSites: RequestHandler = (request, _response, next) => {
  const site = request.get("Sec-Fetch-Site");
  if (site === "cross-site" && request.method !== "GET")
    throw new ProblemError({ title: "Another site may not change anything here", status: 403 });
  next();
};

/** `referrer`: what pages that are gone to from here learn of the address. */
export function securityHeaders(referrer: "no-referrer" | "same-origin"): RequestHandler {
  return helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'self'"],
        // The text shaper is compiled code; no script can be made from text all the same.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        imgSrc: ["'self'", "blob:", "data:"],
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: ["'self'"],
        frameAncestors: ["'none'"],
      },
    },
    referrerPolicy: { policy: referrer },
    // The shop's own network speaks http; a proxy in front that speaks https adds this itself.
    strictTransportSecurity: false,
  });
}
