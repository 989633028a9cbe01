// Errors to RFC 9457 problem documents: what happened, what was kept, what to do.
import type { Problem } from "@plain-palette/contract";
import type { ErrorRequestHandler, RequestHandler } from "express";
import { ZodError } from "zod";
import { isDatabaseAway } from "../database/index.ts";

/** An expected refusal; thrown anywhere below a route. */
export class ProblemError extends Error {
  override readonly name = "ProblemError";
  constructor(readonly problem: Omit<Problem, "type">) {
    super(problem.title);
  }
}

/** The refusal for something that is not there. */
export function notFound(what: string): ProblemError {
  return new ProblemError({
    title: `${what} is not here`,
    status: 404,
    cure: "Go back to the job board and open it from there.",
  });
}

export const answerUnknownRoute: RequestHandler = (request) => {
  throw notFound(`${request.method} ${request.path}`);
};

/** The last handler: every error becomes a problem document; only the unexpected is logged. */
export const answerErrors: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = toProblem(error);
  if (problem.status >= 500) console.error(`${request.method} ${request.path}:`, error);
  response.status(problem.status).type("application/problem+json").send(JSON.stringify(problem));
};

function toProblem(error: unknown): Problem {
  const type = "about:blank";
  if (error instanceof ProblemError) return { type, ...error.problem };
  if (error instanceof ZodError)
    return {
      type,
      title: "The request does not fit",
      status: 400,
      detail: error.issues.map((issue) => `${issue.path.join(".")}: ${issue.message}`).join("; "),
    };
  if (isDatabaseAway(error))
    return {
      type,
      title: "The database is away for a moment",
      status: 503,
      kept: "Everything saved so far is kept.",
      cure: "Nothing to do: it is tried again by itself.",
    };
  if (typeof error === "object" && error !== null && "type" in error) {
    if (error.type === "entity.too.large")
      return {
        type,
        title: `The file is larger than ${"limit" in error ? Math.floor(Number(error.limit) / 2 ** 20) : 64} MB`,
        status: 413,
        cure: "Save it smaller and send it again.",
      };
    if (error.type === "entity.parse.failed") return { type, title: "The request is not JSON", status: 400 };
    if (error.type === "request.aborted") return { type, title: "The upload was broken off", status: 400 };
  }
  return {
    type,
    title: "Something went wrong on the server",
    status: 500,
    kept: "The artwork and every saved recipe are kept.",
    cure: "Try it again; if it happens again, send the server's log to whoever looks after it.",
  };
}
