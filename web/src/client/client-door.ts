// What the client's page asks at the clients' door.
import {
  type ClientNote,
  type ClientProof,
  type ClientYes,
  clientProofSchema,
  type Problem,
  problemSchema,
} from "@plain-palette/contract";

/** A refusal, or that nobody answers. */
export class DoorProblem extends Error {
  override readonly name = "DoorProblem";
  constructor(readonly problem: Problem) {
    super(problem.title);
  }
}

const AWAY: Problem = {
  type: "about:blank",
  title: "The shop's computer does not answer",
  status: 0,
  kept: "What you have written is still here.",
  cure: "Please try again in a little while.",
};

const addressOf = (token: string, part = "") => `/api/proof/${encodeURIComponent(token)}${part}`;
export const pdfAddress = (token: string) => addressOf(token, "/pdf");

async function ask(path: string, init?: RequestInit): Promise<ClientProof> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new DoorProblem(AWAY);
  }
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return clientProofSchema.parse(body);
  const problem = problemSchema.safeParse(body);
  throw new DoorProblem(problem.success ? problem.data : AWAY);
}

const post = (path: string, content: unknown) =>
  ask(path, { method: "POST", body: JSON.stringify(content), headers: { "Content-Type": "application/json" } });

export const door = {
  open: (token: string) => ask(addressOf(token)),
  say: (token: string, note: ClientNote) => post(addressOf(token, "/notes"), note),
  sayYes: (token: string, yes: ClientYes) => post(addressOf(token, "/yes"), yes),
};
