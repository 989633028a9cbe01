export { answerErrors, answerUnknownRoute, notFound, ProblemError } from "./problems.ts";
