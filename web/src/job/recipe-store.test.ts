import { type Job, MOST_RECIPE_BYTES } from "@plain-palette/contract";
import { makeRecipe, type Recipe } from "@plain-palette/core/recipe";
import { screens } from "@plain-palette/core/screens";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api } from "../api/client.ts";
import { RequestProblem } from "../api/requests.ts";
import { takeUpAgain } from "./left-behind.ts";
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

/** A server that takes every save; `saves` are the traps that reached it. */
function fakeServer() {
  const saves: number[] = [];
  let head = JOB.head;
  vi.spyOn(api, "saveRecipe").mockImplementation(async (_id, { basedOn, recipe }) => {
    saves.push(screens.settingsIn(recipe).trapMm);
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
    const store = makeRecipeStore(JOB);
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
    const saves = fakeServer();
    const store = makeRecipeStore(JOB);
    store.getState().edit(withTrap(0.4));
    const flushed = store.getState().flush();
    store.getState().edit(withTrap(0.5));
    expect(await flushed).toBe(3);
    expect(saves).toEqual([0.4, 0.5]);
  });

  it("keeps an edit while the server is away, and saves it when it is back", async () => {
    const store = makeRecipeStore(JOB);
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
    const store = makeRecipeStore(JOB);
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
    const store = makeRecipeStore(JOB);
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
    const store = makeRecipeStore({ ...JOB, undo: null });
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
    const store = makeRecipeStore({ ...JOB, head: 5, undo: 4 });
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

  it("hands an unsaved edit to the browser when the page closes, once", () => {
    const save = vi.spyOn(api, "saveRecipe").mockResolvedValue(JOB);
    const store = makeRecipeStore(JOB);
    store.getState().leave();
    expect(save).not.toHaveBeenCalled();
    store.getState().edit(withTrap(0.8));
    store.getState().leave();
    expect(save).toHaveBeenCalledExactlyOnceWith(JOB.id, expect.objectContaining({ basedOn: 1 }));
  });

  it("keeps an unsaved edit that is too large for a closing page in the browser, and takes it up once", () => {
    const kept = new Map<string, string>();
    vi.stubGlobal("localStorage", {
      setItem: (key: string, text: string) => kept.set(key, text),
      getItem: (key: string) => kept.get(key) ?? null,
      removeItem: (key: string) => kept.delete(key),
    });
    const save = vi.spyOn(api, "saveRecipe").mockResolvedValue(JOB);
    const store = makeRecipeStore(JOB);
    const points = Array.from({ length: 8000 }, (_, i) => i + 0.25);
    const stroke = { mode: "erase", radiusPx: 4, points, hex: "#000000" } as const;
    const strokes = [1, 2].map((n) => ({
      id: `a${n}`,
      isOn: true,
      kind: "stroke" as const,
      ...stroke,
      points: [...points],
    }));
    store.getState().edit((r) => ({ ...r, artwork: { ...r.artwork, actions: strokes } }));
    store.getState().leave();
    expect(save).not.toHaveBeenCalled();
    expect(takeUpAgain(JOB.id)).toMatchObject({
      basedOn: 1,
      recipe: { artwork: { actions: [{ id: "a1" }, { id: "a2" }] } },
    });
    expect(takeUpAgain(JOB.id)).toBeNull();
    vi.unstubAllGlobals();
  });
});
