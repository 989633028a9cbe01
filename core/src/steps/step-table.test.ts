// What a step made is found again by what it was made from: the latest, and some before it.
import { expect, it } from "vitest";
import { doAlone } from "../share/index.ts";
import { doStep, type KeptResults, type StepTable } from "./index.ts";

interface Results {
  readonly doubled: { readonly value: number };
  readonly said: { readonly text: string };
}
interface Wanted {
  readonly number: number;
  readonly word: string;
}

function open(keepsEarlier = true) {
  const done: string[] = [];
  const kept: KeptResults<Results> = {};
  const table: StepTable<Results, Wanted> = {
    doubled: {
      ...{ doing: "Doubling", weight: 1, part: "test", from: [], keepsEarlier: () => keepsEarlier },
      reads: ({ number }) => number,
      compute: ({ number }) => {
        done.push(`doubled ${number}`);
        return { value: 2 * number };
      },
    },
    said: {
      ...{ doing: "Saying", weight: 1, part: "test", from: ["doubled"], keepsEarlier: () => keepsEarlier },
      reads: ({ word }) => word,
      compute: ({ word }, get) => {
        done.push(`said ${word}`);
        return { text: `${word} ${get("doubled").value}` };
      },
    },
  };
  /** What is said, and what was done for it. */
  const want = (number: number, word: string) => {
    done.length = 0;
    doAlone(doStep(table, "doubled", { number, word }, kept));
    const { text } = doAlone(doStep(table, "said", { number, word }, kept));
    return [text, ...done];
  };
  return want;
}

it("going back does nothing again, and what comes after what was gone back to is its own", () => {
  const want = open();
  expect(want(1, "a")).toEqual(["a 2", "doubled 1", "said a"]);
  expect(want(2, "a")).toEqual(["a 4", "doubled 2", "said a"]);
  expect(want(1, "a")).toEqual(["a 2"]);
  expect(want(1, "b")).toEqual(["b 2", "said b"]);
  expect(want(2, "a")).toEqual(["a 4"]);
  // The third before the latest is gone.
  want(3, "a");
  want(4, "a");
  expect(want(2, "a")).toEqual(["a 4"]);
  expect(want(1, "a")).toEqual(["a 2", "doubled 1", "said a"]);
});

it("a step that keeps none does all again", () => {
  const want = open(false);
  want(1, "a");
  want(2, "a");
  expect(want(1, "a")).toEqual(["a 2", "doubled 1", "said a"]);
});
