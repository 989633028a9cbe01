// How the shop's pages ask the server: known by a name of their own, answers parsed by the contract, refusals as problems.
import { OWN_HEADER, type Problem, problemSchema, type RecipeSave } from "@plain-palette/contract";
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
  cure: "Check that Plain Palette is running; it is tried again by itself.",
};

/** What this window calls itself. */
const WINDOW = Math.random().toString(36).slice(2);

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

/** The body of a good answer; throws the problem of any other. */
function parseAnswer<T>(schema: z.ZodType<T>, status: number, body: unknown, retryAfter: string | null): T {
  if (status >= 200 && status < 300) return schema.parse(body);
  const problem = problemSchema.safeParse(body);
  throw new RequestProblem(
    problem.success ? problem.data : { ...AWAY, title: "The server gave no sensible answer", status },
    retryAfter === null ? null : Number(retryAfter),
  );
}

/** A browser finishes a request after its page is gone if the bodies of all such are under 64 KiB (Fetch standard). */
const SURVIVES_BYTES = 60_000;

/** Whether a save would reach the server from a page that closes. */
export function survivesClosing(save: RecipeSave): boolean {
  return JSON.stringify(save).length < SURVIVES_BYTES;
}

/** What is sent as JSON; a small one reaches the server from a page that is closing, too. */
export function withJson(method: string, content: unknown): RequestInit {
  const body = JSON.stringify(content);
  return { method, body, headers: { "Content-Type": "application/json" }, keepalive: body.length < SURVIVES_BYTES };
}

/** A file as its bytes: what kind it is, the server sees for itself. */
export function withFile(file: File): RequestInit {
  return { method: "POST", body: file, headers: { "Content-Type": "application/octet-stream" } };
}

/** How far a file is: the share of its bytes that are sent (0..1), or that it waits until the server has room for it. */
export type Sending = number | "waits";
export type OnSending = (sending: Sending) => void;

/**
 * Sends a file, as soon as the server has room for it. Rejects with the server's problem, or with the signal's reason when
 * cancelled.
 */
export async function sendFile<T>(
  schema: z.ZodType<T>,
  path: string,
  file: File,
  onSending: OnSending,
  signal: AbortSignal,
): Promise<T> {
  for (;;) {
    try {
      return await sendOnce(schema, path, file, onSending, signal);
    } catch (error) {
      if (!(error instanceof RequestProblem) || error.retryAfterS === null) throw error;
      onSending("waits");
      await rest(error.retryAfterS * 1000, signal);
    }
  }
}

function rest(ms: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, ms);
    signal.addEventListener("abort", () => {
      clearTimeout(timer);
      reject(signal.reason);
    });
  });
}

/** With XMLHttpRequest, because fetch does not tell how much is sent. */
function sendOnce<T>(
  schema: z.ZodType<T>,
  path: string,
  file: File,
  onSending: OnSending,
  signal: AbortSignal,
): Promise<T> {
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
