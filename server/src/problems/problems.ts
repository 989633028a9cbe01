// Errors to RFC 9457 problem documents: what happened, what was kept, what to do.
import type { Problem } from "@plain-palette/contract";
import type { ErrorRequestHandler, RequestHandler } from "express";
import { ZodError } from "zod";
import { FullHouse, Overrun } from "../compute/index.ts";
import { isDatabaseAway, isDatabaseFull, isDeadlock, isMixedUp } from "../database/index.ts";

/** An expected refusal; thrown anywhere below a route. */
export class ProblemError extends Error {
  override readonly name = "ProblemError";
  constructor(
    readonly problem: Omit<Problem, "type">,
    /** With 503: when it may be tried again. */
    readonly retryAfterS: number | null = null,
  ) {
    super(problem.title);
  }
}

/** How long whoever finds no room may wait before trying again, s. */
const RETRY_AFTER_S = 2;

/** Refusals that say all there is to know: nothing is wrong with the program. */
const SAID: ReadonlySet<number> = new Set([503, 507]);

/** The refusal for anything new while the disk is full. */
export function diskFull(detail: string): ProblemError {
  return new ProblemError({
    title: "The shop's disk is full",
    status: 507,
    detail,
    kept: "Everything saved so far is kept, and can be read.",
    cure: "Make room on the disk of the shop's data; then it goes on by itself.",
  });
}

/** The refusal for what there is no room for just now. */
export function busy(title: string): ProblemError {
  return new ProblemError(
    { title, status: 503, kept: "Nothing was changed.", cure: "Wait a moment and send it again." },
    RETRY_AFTER_S,
  );
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
  // Whoever asked is gone.
  if (response.destroyed) return;
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = toProblem(error);
  if (problem.status >= 500 && !SAID.has(problem.status)) console.error(`${request.method} ${request.path}:`, error);
  const retryAfterS = error instanceof ProblemError ? error.retryAfterS : problem.status === 503 ? RETRY_AFTER_S : null;
  if (retryAfterS !== null) response.set("Retry-After", `${retryAfterS}`);
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
  if (error instanceof FullHouse) return { type, ...busy("So many wait that nobody else is let in").problem };
  if (error instanceof Overrun)
    return {
      type,
      title: "This takes more time or memory than there is",
      status: 422,
      kept: "The artwork and every saved recipe are kept.",
      cure: "Make the job simpler or smaller, or its files one process after the other.",
    };
  if (isDeadlock(error)) return { type, ...busy("Many change the same at once").problem };
  if (isDatabaseFull(error)) return { type, ...diskFull("The database has no room left.").problem };
  if (isDatabaseAway(error))
    return {
      type,
      title: "The database is away for a moment",
      status: 503,
      kept: "Everything saved so far is kept.",
      cure: "Nothing to do: it is tried again by itself.",
    };
  // No name of ours has signs that the database cannot compare.
  if (isMixedUp(error)) return { type, ...notFound("This").problem };
  return httpProblem(error) ?? somethingWrong();
}

/** What Express and its parsers refuse by themselves, whose errors carry a status. */
function httpProblem(error: unknown): Problem | null {
  const type = "about:blank";
  if (typeof error !== "object" || error === null || !("status" in error)) return null;
  const status = Number(error.status);
  if (!(status >= 400 && status < 500)) return null;
  const kind = "type" in error ? error.type : "";
  if (status === 404) return { type, ...notFound("This").problem };
  if (kind === "entity.too.large")
    return {
      type,
      title: `The file is larger than ${sizeWords("limit" in error ? Number(error.limit) : 64 * 2 ** 20)}`,
      status,
      cure: "Save it smaller and send it again.",
    };
  if (kind === "entity.parse.failed") return { type, title: "The request is not JSON", status };
  if (kind === "request.aborted") return { type, title: "The upload was broken off", status };
  if (kind === "encoding.unsupported" || kind === "charset.unsupported")
    return { type, title: "The request is packed or written in a way that is not known here", status };
  return { type, title: "The request is damaged", status, cure: "Send it again." };
}

function sizeWords(bytes: number): string {
  return bytes < 2 ** 20 ? `${Math.floor(bytes / 1024)} kB` : `${Math.floor(bytes / 2 ** 20)} MB`;
}

function somethingWrong(): Problem {
  return {
    type: "about:blank",
    title: "Something went wrong on the server",
    status: 500,
    kept: "The artwork and every saved recipe are kept.",
    cure: "Try it again; if it happens again, send the server's log to whoever looks after it.",
  };
}
