export { answerErrors, answerUnknownRoute, busy, diskFull, notFound, ProblemError } from "./problems.ts";
