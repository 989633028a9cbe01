export { makeClientApp } from "./client-app.ts";
export { type MailServer, type MailStore, makeMailStore } from "./mail-store.ts";
export { proofRoutes } from "./proof-routes.ts";
export { makeProofStore, type ProofStore } from "./proof-store.ts";
