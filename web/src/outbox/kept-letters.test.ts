import "fake-indexeddb/auto";
import { describe, expect, it, vi } from "vitest";
import { keepInBrowser, type Letter } from "./kept-letters.ts";

const letter = (id: string, order: number, window: string): Letter => ({
  ...{ id, order, window, about: "Shop settings", tries: 1, dueAt: 5, trouble: "away", held: null },
  content: { kind: "settings", patch: { perScreen: order, seen: { perScreen: 0 } } },
});
const noLoss = () => expect.unreachable("the browser keeps letters");
const ids = (letters: readonly Letter[]) => letters.map(({ id }) => id);

describe("letters in the browser's database", () => {
  it("are taken up by another window once theirs is gone, in their order, and not before", async () => {
    const first = keepInBrowser("first", noLoss, "taken-up");
    first.put(letter("b", 2, "first"));
    first.put(letter("a", 1, "first"));
    first.put(letter("c", 3, "first"));
    first.remove("c");
    await new Promise((resolve) => setTimeout(resolve, 50));
    const second = keepInBrowser("second", noLoss, "taken-up");
    expect(await second.takeUp()).toEqual([]);
    // A browser that was killed: nobody answers for its window.
    const stranger = keepInBrowser("stranger", noLoss, "taken-up");
    stranger.put(letter("d", 0, "killed long ago"));
    await new Promise((resolve) => setTimeout(resolve, 50));
    const taken = await second.takeUp();
    expect(taken).toMatchObject([{ id: "d", window: "second", dueAt: 0 }]);
    // They are the second one's now.
    expect(ids(await second.takeUp())).toEqual([]);
  });

  it("tells the other windows when one is gone", async () => {
    const heard = vi.fn();
    keepInBrowser("one", noLoss, "gone").onGone(heard);
    keepInBrowser("other", noLoss, "gone").sayGone();
    await vi.waitFor(() => expect(heard).toHaveBeenCalledOnce());
  });

  it("leaves alone what a newer code has written", async () => {
    const first = keepInBrowser("first", noLoss, "newer");
    first.put({ ...letter("n", 1, "gone"), content: { kind: "weather" } as never });
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await keepInBrowser("second", noLoss, "newer").takeUp()).toEqual([]);
  });

  it("says so where the browser keeps nothing", async () => {
    const real = globalThis.indexedDB;
    const onLoss = vi.fn();
    vi.stubGlobal("indexedDB", {
      open() {
        throw new DOMException("forbidden", "SecurityError");
      },
    });
    const kept = keepInBrowser("forbidden", onLoss, "forbidden").takeUp();
    expect(await kept.catch(() => [])).toEqual([]);
    expect(onLoss).toHaveBeenCalled();
    vi.stubGlobal("indexedDB", real);
  });
});
