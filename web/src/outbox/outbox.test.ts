import type { ShopStock } from "@plain-palette/contract";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { RequestProblem } from "../api/requests.ts";
import type { KeptLetters, Letter } from "./kept-letters.ts";
import type { Answer, Content } from "./letters.ts";
import { makeOutbox } from "./outbox.ts";

const STOCK: ShopStock = {
  ...{ id: "6f2b1c1e-0000-4000-8000-000000000001", version: 3, kind: "ink", code: "I-1", name: "Signal red" },
  ...{ colour: { space: "srgb", hex: "#d8412f" }, detail: "", film: null, stones: null },
};

const change = (detail: string, id: string = STOCK.id): Content => ({
  ...{ kind: "stock", deed: "change", thing: { ...STOCK, id, detail } },
});
const refusal = (status: number, retryAfterS: number | null = null) =>
  new RequestProblem({ type: "about:blank", title: `refused with ${status}`, status }, retryAfterS);

const nothingKept: KeptLetters = {
  takeUp: async () => [],
  ...{ put() {}, remove() {}, hurry() {}, onGone() {}, sayGone() {} },
};

/** What reached the server, as version and detail; `answers` say what comes of each, in turn: yes where there is none. */
function ship(answers: (Error | "never")[] = [], kept = nothingKept) {
  const sent: [number, string][] = [];
  const send = async (content: Content): Promise<Answer> => {
    if (content.kind !== "stock") throw new Error("only stock is sent here");
    sent.push([content.thing.version, content.thing.detail]);
    const answer = answers.shift();
    if (answer === "never") return new Promise(() => {});
    if (answer) throw answer;
    return { of: "stock", thing: { ...content.thing, version: content.thing.version + 1 } };
  };
  return { outbox: makeOutbox({ kept, send, window: "this" }), sent };
}

const details = (letters: readonly Letter[]) =>
  letters.map(({ content }) => (content.kind === "stock" ? content.thing.detail : ""));

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe("the outbox", () => {
  it("sends what belongs together one after the other, each made from what the last one left", async () => {
    const { outbox, sent } = ship();
    for (const detail of ["one tin", "two tins", "three tins"]) outbox.post("red", change(detail));
    await vi.advanceTimersByTimeAsync(0);
    expect(sent).toEqual([
      [3, "one tin"],
      [4, "two tins"],
      [5, "three tins"],
    ]);
    expect(outbox.state.getState().letters).toEqual([]);
  });

  it("does not let one thing wait for another that hangs", async () => {
    const { outbox, sent } = ship(["never"]);
    outbox.post("red", change("hangs"));
    outbox.post("red", change("waits behind it"));
    outbox.post("blue", change("goes", "6f2b1c1e-0000-4000-8000-000000000002"));
    await vi.advanceTimersByTimeAsync(60_000);
    expect(sent.map(([, detail]) => detail)).toEqual(["hangs", "goes"]);
  });

  it("tries again with growing pauses of at most eight seconds, when it is told to, and when the server says", async () => {
    const { outbox, sent } = ship([...Array(12).fill(refusal(0)), refusal(503, 20)]);
    outbox.post("red", change("late"));
    await vi.advanceTimersByTimeAsync(0);
    expect(outbox.state.getState().letters[0]?.trouble).toBe("refused with 0");
    await vi.advanceTimersByTimeAsync(4000);
    expect(sent.length).toBe(3);
    outbox.tryNow();
    await vi.advanceTimersByTimeAsync(0);
    expect(sent.length).toBe(4);
    await vi.advanceTimersByTimeAsync(65_000);
    expect(sent.length).toBe(13);
    await vi.advanceTimersByTimeAsync(18_000);
    expect(sent.length).toBe(13);
    await vi.advanceTimersByTimeAsync(3000);
    expect([sent.length, outbox.state.getState().letters.length]).toEqual([14, 0]);
  });

  it("holds what is refused until a person lets it go, and goes on with what comes after it", async () => {
    const { outbox, sent } = ship([refusal(409)]);
    outbox.post("red", change("too late"));
    outbox.post("red", change("after it"));
    await vi.advanceTimersByTimeAsync(0);
    expect(sent.map(([, detail]) => detail)).toEqual(["too late", "after it"]);
    const [held] = outbox.state.getState().letters;
    expect(held?.held).toMatchObject({ kind: "refused", problem: { status: 409 } });
    outbox.withdraw(held?.id ?? "");
    expect(outbox.state.getState().letters).toEqual([]);
  });

  it("takes a 500, a 408 and a 429 for not now, never for no", async () => {
    for (const status of [500, 408, 429]) {
      const { outbox, sent } = ship([refusal(status)]);
      outbox.post("red", change("once more"));
      await vi.advanceTimersByTimeAsync(3000);
      expect([sent.length, outbox.state.getState().letters.length]).toEqual([2, 0]);
    }
  });

  it("waits out a quiet in which more is typed, but not when the page closes", async () => {
    const { outbox, sent } = ship();
    outbox.post("red", change("o"), 250);
    const [letter] = outbox.state.getState().letters;
    await vi.advanceTimersByTimeAsync(200);
    outbox.amend(letter?.id ?? "", change("one t"), 250);
    await vi.advanceTimersByTimeAsync(200);
    expect(sent).toEqual([]);
    outbox.amend(letter?.id ?? "", change("one tin"), 250);
    outbox.leave();
    await vi.advanceTimersByTimeAsync(0);
    expect(sent).toEqual([[3, "one tin"]]);
  });

  it("settles at once when nothing waits, when the answer is there, and when there will be none for now", async () => {
    const { outbox } = ship([refusal(0)]);
    await outbox.settle(`stock ${STOCK.id}`);
    outbox.post("red", change("late"), 60_000);
    await outbox.settle(`stock ${STOCK.id}`);
    expect(outbox.state.getState().letters[0]?.trouble).toBe("refused with 0");
    expect(details(outbox.lettersOf(`stock ${STOCK.id}`))).toEqual(["late"]);
    outbox.tryNow();
    await vi.advanceTimersByTimeAsync(0);
    expect(outbox.lettersOf(`stock ${STOCK.id}`)).toEqual([]);
  });

  it("does not stumble over an answer that makes no sense", async () => {
    const { outbox, sent } = ship([new TypeError("not what was agreed")]);
    outbox.post("red", change("again"));
    await vi.advanceTimersByTimeAsync(0);
    expect(outbox.state.getState().letters[0]?.trouble).toBe("It could not be sent");
    await vi.advanceTimersByTimeAsync(2000);
    expect(sent.length).toBe(2);
  });
});
