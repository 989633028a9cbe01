export { refuseOtherSites, securityHeaders } from "./guards.ts";
export { answerErrors, answerUnknownRoute, notFound, ProblemError } from "./problems.ts";
