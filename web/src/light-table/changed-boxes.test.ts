// Property: outside the boxes of a change both pictures are the same, whatever was moved, added, taken away, turned about or
// put elsewhere in the pile.
import { isInLine, polygonPath } from "@plain-palette/core/geometry";
import { beforeAll, expect, it } from "vitest";
import { stubCanvas } from "../testing/canvas.test.support.ts";
import { changedBoxes } from "./changed-boxes.ts";
import type { TableLayer } from "./layers.ts";
import { makePieces } from "./pieces.ts";

beforeAll(stubCanvas);

type Ring = readonly (readonly [number, number])[];
/** A pile of drawings: a colour and the rings that are filled with it, by non-zero winding as all turn one way. */
type Pile = readonly { readonly colour: string; readonly rings: readonly Ring[] }[];

/** Numbers from 0 to 1, the same in every run (Park & Miller 1988). */
function numbersFrom(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

const layersOf = (pile: Pile): TableLayer[] =>
  pile.map(({ colour, rings }) => ({
    kind: "fills",
    fills: [
      {
        colour,
        path: makePieces(
          rings.map((ring) => polygonPath(ring.flat())),
          true,
        ),
      },
    ],
  }));

/** What is seen at a place: the colour on top. */
function seenAt(pile: Pile, place: [number, number]): string | undefined {
  const isIn = (ring: Ring) => isInLine(ring.flat(), ...place);
  return pile.findLast(({ rings }) => rings.some(isIn))?.colour;
}

function star(random: () => number): Ring {
  const [x, y] = [random() * 400, random() * 400];
  return Array.from({ length: 9 }, (_, k) => {
    const radius = 10 + 50 * random();
    return [x + radius * Math.cos((k * Math.PI) / 4.5), y + radius * Math.sin((k * Math.PI) / 4.5)] as const;
  });
}

/** One of the things that happen to drawings. */
function change(pile: Pile, random: () => number): Pile {
  const at = Math.floor(random() * pile.length);
  const inRings = (of: (rings: readonly Ring[]) => readonly Ring[]) =>
    pile.map((one, k) => (k === at ? { ...one, rings: of(one.rings) } : one));
  const which = Math.floor(random() * 3);
  const step = [random() * 9, random() * 9] as const;
  const ways = [
    // A node of one is moved, and one is taken away.
    () =>
      inRings((rings) =>
        rings.map((ring, k) =>
          k === which
            ? ring.map(([x, y], i) => (i === 4 ? ([x + step[0], y + step[1]] as const) : ([x, y] as const)))
            : ring,
        ),
      ),
    () => inRings((rings) => rings.map((ring, k) => (k === which ? ring.filter((_, i) => i !== 3) : ring))),
    () => inRings((rings) => [...rings, star(random)]),
    () => inRings((rings) => rings.filter((_, k) => k !== which)),
    () => inRings((rings) => rings.toReversed()),
    // It begins at another node.
    () => inRings((rings) => rings.map((ring) => [...ring.slice(2), ...ring.slice(0, 2)])),
    () => pile.toReversed(),
    () => pile.filter((_, k) => k !== at),
    () => pile.map((one, k) => (k === at ? { ...one, colour: "#f2b134" } : one)),
  ];
  return ways[Math.floor(random() * ways.length)]?.() ?? pile;
}

it("outside the boxes of a change nothing looks otherwise", () => {
  const random = numbersFrom(7);
  let [spared, looked] = [0, 0];
  for (let k = 0; k < 120; k++) {
    const pile: Pile = ["#14304f", "#d8412f", "#f2efe4"].map((colour) => ({
      colour,
      rings: Array.from({ length: 4 }, () => star(random)),
    }));
    const changed = change(pile, random);
    const boxes = changedBoxes(layersOf(pile), layersOf(changed));
    for (let n = 0; n < 150; n++) {
      const [x, y] = [random() * 460 - 30, random() * 460 - 30];
      looked++;
      if (boxes?.some((box) => x >= box.left && x <= box.right && y >= box.top && y <= box.bottom) !== false) continue;
      spared++;
      expect(seenAt(changed, [x, y])).toBe(seenAt(pile, [x, y]));
    }
  }
  // Most of the table stays.
  expect(spared / looked).toBeGreaterThan(0.6);
});

it("what lies where nobody can tell may look otherwise anywhere", () => {
  const drawn = layersOf([
    {
      colour: "#14304f",
      rings: [
        [
          [0, 0],
          [9, 0],
          [9, 9],
        ],
      ],
    },
  ]);
  const bitmap = (opacity: number): TableLayer => ({ kind: "bitmap", bitmap: {} as ImageBitmap, opacity });
  expect(changedBoxes([...drawn, bitmap(1)], [...drawn, bitmap(0.5)])).toBeNull();
  const picture = bitmap(1);
  expect(changedBoxes([picture, ...drawn], [{ ...picture }, ...drawn])).toEqual([]);
});
