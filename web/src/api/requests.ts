// How the shop's pages ask the server: known by a name of their own, answers parsed by the contract, refusals as problems.
import { OWN_HEADER, type Problem, problemSchema } from "@plain-palette/contract";
import type { z } from "zod";

/** A refusal by the server, or its absence. */
export class RequestProblem extends Error {
  override readonly name = "RequestProblem";
  constructor(
    readonly problem: Problem,
    /** When it may be tried again, if the server says so. */
    readonly retryAfterS: number | null = null,
  ) {
    super(problem.detail ?? problem.title);
  }
}

const AWAY: Problem = {
  type: "about:blank",
  title: "The server does not answer",
  status: 0,
  kept: "Everything saved so far is kept.",
  cure: "Check that Plain Palette is running.",
};

/** Whether a problem may be gone by itself a little later: the server is away, or says that it cannot now. */
export const isAway = ({ status }: Problem): boolean => status === 0 || status > 500;

/** What this window calls itself. */
export const WINDOW = Math.random().toString(36).slice(2);

/** The body of a good answer. Throws a RequestProblem. */
export async function request<T>(schema: z.ZodType<T>, path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, { ...init, headers: { ...init?.headers, [OWN_HEADER]: WINDOW } });
  } catch {
    throw new RequestProblem(AWAY);
  }
  const body = await response.json().catch(() => null);
  return parseAnswer(schema, response.status, body, response.headers.get("Retry-After"));
}

const NOT_UNDERSTOOD: Problem = {
  type: "about:blank",
  title: "The server gave no sensible answer",
  status: 500,
  kept: "Everything saved so far is kept.",
  cure: "Reload the page: Plain Palette may have been renewed meanwhile.",
};

/** The body of a good answer; throws the problem of any other. */
function parseAnswer<T>(schema: z.ZodType<T>, status: number, body: unknown, retryAfter: string | null): T {
  if (status >= 200 && status < 300) {
    const read = schema.safeParse(body);
    if (read.success) return read.data;
    throw new RequestProblem(NOT_UNDERSTOOD);
  }
  const problem = problemSchema.safeParse(body);
  throw new RequestProblem(
    problem.success ? problem.data : { ...AWAY, title: NOT_UNDERSTOOD.title, status },
    retryAfter === null ? null : Number(retryAfter),
  );
}

/** A browser finishes a request after its page is gone if the bodies of all such are under 64 KiB (Fetch standard). */
const SURVIVES_BYTES = 60_000;
/** A server that has said nothing for so long is away, ms. */
const PATIENCE_MS = 45_000;

/** What is sent as JSON; a small one reaches the server from a page that is closing, too. */
export function withJson(method: string, content: unknown): RequestInit {
  const body = JSON.stringify(content);
  return {
    ...{ method, body, headers: { "Content-Type": "application/json" }, keepalive: body.length < SURVIVES_BYTES },
    signal: AbortSignal.timeout(PATIENCE_MS),
  };
}

/** A file as its bytes: what kind it is, the server sees for itself. */
export function withFile(file: File): RequestInit {
  return { method: "POST", body: file, headers: { "Content-Type": "application/octet-stream" } };
}

/** How far a file is: the share of its bytes that are sent (0..1), or why it waits. */
export type Sending = number | "full house" | "away";

/** How a file is sent. */
export interface FileSending {
  readonly file: File;
  onSending(sending: Sending): void;
  readonly signal: AbortSignal;
}

/**
 * Sends a file once, with XMLHttpRequest, because fetch does not tell how much is sent. Rejects with the server's problem,
 * or with the signal's reason when cancelled.
 */
export function sendFile<T>(schema: z.ZodType<T>, path: string, { file, onSending, signal }: FileSending): Promise<T> {
  return new Promise((resolve, reject) => {
    const transfer = new XMLHttpRequest();
    transfer.open("POST", `/api${path}`);
    transfer.setRequestHeader("Content-Type", "application/octet-stream");
    transfer.setRequestHeader(OWN_HEADER, WINDOW);
    transfer.upload.onprogress = (event) => onSending(event.total > 0 ? event.loaded / event.total : 1);
    transfer.onload = () => {
      try {
        const body = JSON.parse(transfer.responseText || "null");
        resolve(parseAnswer(schema, transfer.status, body, transfer.getResponseHeader("Retry-After")));
      } catch (error) {
        reject(error);
      }
    };
    transfer.onerror = () => reject(new RequestProblem(AWAY));
    transfer.onabort = () => reject(signal.reason);
    signal.addEventListener("abort", () => transfer.abort());
    transfer.send(file);
  });
}
