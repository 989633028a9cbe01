import { type Job, MOST_RECIPE_BYTES } from "@plain-palette/contract";
import { makeRecipe, type Recipe } from "@plain-palette/core/recipe";
import { screens } from "@plain-palette/core/screens";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client.ts";
import { RequestProblem } from "../api/requests.ts";
import type { KeptLetters, Letter } from "../outbox/kept-letters.ts";
import { sendContent } from "../outbox/letters.ts";
import { makeOutbox } from "../outbox/outbox.ts";
import { makeRecipeStore } from "./recipe-store.ts";

const JOB: Job = {
  id: "6f2b1c1e-0000-4000-8000-000000000001",
  number: 7,
  title: "Crew shirts",
  client: "Tern Island Ferry",
  step: "artwork",
  makeTitle: "Separations",
  garment: "#ffffff",
  isPutAway: false,
  state: "new",
  yesDay: null,
  dueDay: null,
  clientMail: "",
  process: "screens",
  picture: null,
  artwork: {
    hash: "0".repeat(64),
    fileName: "a.png",
    kind: "png",
    bytes: 1,
    width: 10,
    height: 10,
    hasAlpha: false,
    dpi: null,
    pages: 1,
    content: "pixels",
  },
  updatedAt: "2026-11-25T00:00:00.000Z",
  recipe: makeRecipe(),
  head: 1,
  undo: null,
  redo: null,
};

const withTrap =
  (trapMm: number) =>
  (recipe: Recipe): Recipe =>
    screens.withSettings(recipe, { trapMm });
const refusal = (status: number, more = {}) =>
  new RequestProblem({ type: "about:blank", title: "refused", status, ...more });

/** A browser's letters: what is in `letters` outlives the page. */
function keepIn(letters: Map<string, Letter>): KeptLetters {
  return {
    takeUp: async () => [...letters.values()].map((letter) => ({ ...letter, dueAt: 0 })),
    put: (letter) => void letters.set(letter.id, letter),
    remove: (id) => void letters.delete(id),
    hurry() {},
    onGone() {},
    sayGone() {},
  };
}

/** A job just opened, in a browser that keeps what is unsaved. */
async function open(job: Job = JOB, letters = new Map<string, Letter>()) {
  const outbox = makeOutbox({ kept: keepIn(letters), send: sendContent, window: "this" });
  await outbox.ready;
  return { store: makeRecipeStore(job, outbox), outbox, letters };
}

/** A server that takes every save; `saves` are the traps that reached it. */
function fakeServer(tookMs = 0) {
  const saves: number[] = [];
  let head = JOB.head;
  vi.spyOn(api, "saveRecipe").mockImplementation(async (_id, { basedOn, recipe }) => {
    saves.push(screens.settingsIn(recipe).trapMm);
    if (tookMs > 0) await new Promise((resolve) => setTimeout(resolve, tookMs));
    head++;
    return { ...JOB, recipe, head, undo: basedOn };
  });
  return saves;
}

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

describe("the recipe of an open job", () => {
  it("changes at once and is saved as one version when a drag pauses", async () => {
    const saves = fakeServer();
    const { store } = await open();
    for (let i = 1; i <= 20; i++) {
      store.getState().edit(withTrap(i / 10));
      expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(i / 10);
      await vi.advanceTimersByTimeAsync(20);
    }
    expect(store.getState().save.kind).toBe("unsaved");
    await vi.advanceTimersByTimeAsync(500);
    expect(saves).toEqual([2]);
    expect(store.getState()).toMatchObject({ save: { kind: "saved" }, job: { head: 2, undo: 1 } });
  });

  it("saves what was edited while a save was under way", async () => {
    const saves = fakeServer(200);
    const { store } = await open();
    store.getState().edit(withTrap(0.4));
    const flushed = store.getState().flush();
    await vi.advanceTimersByTimeAsync(0);
    store.getState().edit(withTrap(0.5));
    await vi.advanceTimersByTimeAsync(1000);
    expect(await flushed).toBe(3);
    expect(saves).toEqual([0.4, 0.5]);
  });

  it("keeps an edit while the server is away, and saves it when it is back", async () => {
    const { store } = await open();
    const save = vi.spyOn(api, "saveRecipe").mockRejectedValue(refusal(503));
    store.getState().edit(withTrap(0.6));
    await vi.advanceTimersByTimeAsync(400);
    expect(store.getState().save).toEqual({ kind: "retrying", why: "refused" });
    await vi.advanceTimersByTimeAsync(4000);
    expect(save.mock.calls.length).toBeGreaterThan(2);
    save.mockRestore();
    const saves = fakeServer();
    await vi.advanceTimersByTimeAsync(2000);
    expect(saves).toEqual([0.6]);
    expect(store.getState().save.kind).toBe("saved");
  });

  it("stops and asks when somebody else saved first; going on with mine bases it on theirs", async () => {
    const { store } = await open();
    vi.spyOn(api, "saveRecipe").mockRejectedValueOnce(refusal(409, { stored: 3, head: 2 }));
    store.getState().edit(withTrap(0.6));
    await vi.advanceTimersByTimeAsync(400);
    expect(store.getState().save).toEqual({ kind: "conflict", stored: 3, head: 2 });
    const theirs = { ...JOB, head: 2, recipe: withTrap(0.9)(JOB.recipe) };
    vi.spyOn(api, "findJob").mockResolvedValue(theirs);
    const second = vi
      .spyOn(api, "saveRecipe")
      .mockImplementation(async (_id, { recipe }) => ({ ...JOB, recipe, head: 4, undo: 2 }));
    await store.getState().resolve("ours");
    expect(second).toHaveBeenCalledWith(JOB.id, expect.objectContaining({ basedOn: 2 }));
    expect(store.getState()).toMatchObject({ save: { kind: "saved" }, job: { head: 4 } });
    expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(0.6);
  });

  it("says that a recipe is too large, sends nothing, and undo brings back what is saved", async () => {
    const saves = fakeServer();
    const { store } = await open();
    const huge = (recipe: Recipe): Recipe => ({
      ...recipe,
      proof: { ...recipe.proof, message: "x".repeat(MOST_RECIPE_BYTES) },
    });
    store.getState().edit(huge);
    await vi.advanceTimersByTimeAsync(3000);
    expect(store.getState().save).toMatchObject({ kind: "refused", problem: { status: 413 } });
    expect(saves).toEqual([]);
    await store.getState().undo();
    expect(store.getState()).toMatchObject({ save: { kind: "saved" }, recipe: JOB.recipe, job: { head: 1 } });
    store.getState().edit(withTrap(0.3));
    await vi.advanceTimersByTimeAsync(500);
    expect(saves).toEqual([0.3]);
  });

  it("undo saves first, then goes back; it never throws away an edit", async () => {
    const saves = fakeServer();
    const { store } = await open({ ...JOB, undo: null });
    const moves: number[] = [];
    vi.spyOn(api, "moveHead").mockImplementation(async (_id, { to }) => {
      moves.push(to);
      return { ...JOB, head: to, redo: 2 };
    });
    store.getState().edit(withTrap(0.7));
    await store.getState().undo();
    expect(saves).toEqual([0.7]);
    expect(moves).toEqual([1]);
    expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(0.3);
  });

  it("goes back twice when undo is pressed twice at once, and an edit made on the way stays on top", async () => {
    const saves = fakeServer();
    const seen: number[] = [];
    vi.spyOn(api, "moveHead").mockImplementation(async (_id, move) => {
      seen.push(move.seen);
      await new Promise((resolve) => setTimeout(resolve, 500));
      return { ...JOB, recipe: withTrap(move.to / 10)(JOB.recipe), head: move.to, undo: move.to - 1 };
    });
    const { store } = await open({ ...JOB, head: 5, undo: 4 });
    void store.getState().undo();
    void store.getState().undo();
    await vi.advanceTimersByTimeAsync(100);
    expect(store.getState().save.kind).toBe("saving");
    await vi.advanceTimersByTimeAsync(500);
    store.getState().edit(withTrap(0.9));
    await vi.advanceTimersByTimeAsync(2000);
    expect(seen).toEqual([5, 4]);
    expect(saves).toEqual([0.9]);
    expect(store.getState()).toMatchObject({ job: { undo: 3 }, save: { kind: "saved" } });
    expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(0.9);
  });

  it("keeps every edit made while the server is away, also after the page is gone, and saves each once, in order", async () => {
    const away = vi.spyOn(api, "saveRecipe").mockRejectedValue(refusal(0));
    const { store, letters } = await open();
    for (const trapMm of [0.4, 0.5, 0.6]) {
      store.getState().edit(withTrap(trapMm));
      await vi.advanceTimersByTimeAsync(500);
    }
    expect(letters.size).toBe(3);
    await expect(store.getState().flush()).rejects.toMatchObject({ problem: { status: 0 } });
    away.mockRestore();
    // The page is gone; it is opened again with the server back.
    const saved = vi
      .spyOn(api, "saveRecipe")
      .mockImplementation(async (_id, { basedOn, recipe }) => ({ ...JOB, recipe, head: basedOn + 1, undo: basedOn }));
    const again = await open(JOB, new Map(letters));
    expect(screens.settingsIn(again.store.getState().recipe).trapMm).toBe(0.6);
    await vi.advanceTimersByTimeAsync(100);
    const sent = saved.mock.calls.map(([, save]) => save);
    expect(sent.map(({ basedOn, recipe }) => [basedOn, screens.settingsIn(recipe).trapMm])).toEqual([
      [1, 0.4],
      [2, 0.5],
      [3, 0.6],
    ]);
    expect(new Set(sent.map(({ saveId }) => saveId)).size).toBe(3);
    expect(again.store.getState()).toMatchObject({ save: { kind: "saved" }, job: { head: 4, undo: 3 } });
  });

  it("sends an edit under the same name until it is acknowledged", async () => {
    const save = vi.spyOn(api, "saveRecipe").mockRejectedValueOnce(refusal(0)).mockRejectedValueOnce(refusal(500));
    save.mockImplementation(async (_id, { basedOn, recipe }) => ({ ...JOB, recipe, head: 2, undo: basedOn }));
    const { store } = await open();
    store.getState().edit(withTrap(0.4));
    await vi.advanceTimersByTimeAsync(10_000);
    const names = save.mock.calls.map(([, { saveId }]) => saveId);
    expect(names.length).toBe(3);
    expect(new Set(names).size).toBe(1);
    expect(store.getState().save.kind).toBe("saved");
  });

  it("takes back here what the server never had, and says so of what it may have", async () => {
    vi.spyOn(api, "saveRecipe").mockRejectedValue(refusal(0));
    const { store } = await open();
    for (const trapMm of [0.4, 0.5]) {
      store.getState().edit(withTrap(trapMm));
      await vi.advanceTimersByTimeAsync(500);
    }
    await store.getState().undo();
    expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(0.4);
    await store.getState().undo();
    expect(screens.settingsIn(store.getState().recipe).trapMm).toBe(0.4);
    expect(store.getState().moveProblem?.title).toContain("waits");
  });

  it("says that undo did not reach the server, and nothing of waiting edits", async () => {
    vi.spyOn(api, "moveHead").mockRejectedValue(refusal(0));
    const { store } = await open({ ...JOB, head: 2, undo: 1 });
    await store.getState().undo();
    expect(store.getState()).toMatchObject({ save: { kind: "saved" }, moveProblem: { status: 0 } });
  });

  it("shows a typed title at once, keeps it while the server is away, and says when somebody was quicker", async () => {
    const patch = vi.spyOn(api, "patchJob").mockRejectedValueOnce(refusal(0));
    const { store, letters } = await open();
    patch.mockImplementation(async (_id, { title = "" }) => ({ ...JOB, title }));
    store.getState().patch({ title: "Deck shirts" });
    await vi.advanceTimersByTimeAsync(100);
    expect(store.getState().job.title).toBe("Deck shirts");
    expect([...letters.values()]).toMatchObject([{ content: { patch: { seen: { title: "Crew shirts" } } } }]);
    await vi.advanceTimersByTimeAsync(3000);
    expect([patch.mock.calls.length, letters.size]).toEqual([2, 0]);
    patch.mockRejectedValue(refusal(409));
    vi.spyOn(api, "findJob").mockResolvedValue({ ...JOB, title: "Galley shirts" });
    store.getState().patch({ title: "Bridge shirts" });
    await vi.advanceTimersByTimeAsync(100);
    expect(store.getState().job.title).toBe("Galley shirts");
    expect([...letters.values()]).toMatchObject([{ held: { kind: "refused", problem: { status: 409 } } }]);
  });

  it("keeps what is changed while two versions wait for a choice, and goes on with it", async () => {
    const save = vi.spyOn(api, "saveRecipe").mockRejectedValueOnce(refusal(409, { stored: 3, head: 2 }));
    const { store, letters } = await open();
    store.getState().edit(withTrap(0.6));
    await vi.advanceTimersByTimeAsync(400);
    store.getState().edit(withTrap(0.7));
    await vi.advanceTimersByTimeAsync(1000);
    expect(store.getState().save).toMatchObject({ kind: "conflict", stored: 3 });
    const again = await open({ ...JOB, head: 2 }, new Map(letters));
    expect(again.store.getState().save.kind).toBe("conflict");
    vi.spyOn(api, "findJob").mockResolvedValue({ ...JOB, head: 2 });
    save.mockImplementation(async (_id, { recipe }) => ({ ...JOB, recipe, head: 4, undo: 2 }));
    await again.store.getState().resolve("ours");
    const [, last] = save.mock.calls.at(-1) ?? [];
    expect([last?.basedOn, last && screens.settingsIn(last.recipe).trapMm]).toEqual([2, 0.7]);
  });
});
