export { answerErrors, answerUnknownRoute, busy, notFound, ProblemError } from "./problems.ts";
