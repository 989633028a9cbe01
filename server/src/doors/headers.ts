// What every answer says to the browser: no scripts that are not ours, and no page of ours inside another.
import type { RequestHandler } from "express";
import helmet from "helmet";

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
    // Together with the opener policy that helmet sends anyway: a page that is isolated may share memory with its threads.
    crossOriginEmbedderPolicy: { policy: "require-corp" },
    referrerPolicy: { policy: referrer },
    // The shop's own network speaks http; a proxy in front that speaks https adds this itself.
    strictTransportSecurity: false,
  });
}
