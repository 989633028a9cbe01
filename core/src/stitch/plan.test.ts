import * as fc from "fast-check";
import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { listAreas } from "../area/index.ts";
import { drawSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { measureAreas } from "./index.ts";
import { BLUE, chosen, commandsOf, planOf, RED, stitchesOf } from "./stitch.test.support.ts";

const square = (x: number, y: number, side: number) => ring(x, y, x + side, y, x + side, y + side, x, y + side);

describe("the order of sewing", () => {
  it("is by colour, with one change for each more than one", () => {
    const plan = planOf(
      [
        chosen([square(0, 0, 10)], {}, "aa0000", 0),
        chosen([square(20, 0, 10)], {}, "0000aa", 1),
        chosen([square(40, 0, 10)], {}, "aa0000", 2),
      ],
      [RED, BLUE],
    );
    expect(commandsOf(plan).filter((command) => command === "colour")).toHaveLength(1);
    expect(
      [...new Set(stitchesOf(plan).map(({ colour, area }) => `${colour} ${area}`))].filter(
        (one) => !one.endsWith("-1"),
      ),
    ).toEqual(expect.arrayContaining(["0 0", "0 2", "1 1"]));
  });
  it("goes on short ways: squares in a row are sewn one after the other", () => {
    const places = [30, 0, 50, 10, 40, 20];
    const plan = planOf(places.map((x, face) => chosen([square(x, 25, 5)], {}, "aa0000", face)));
    const order = [...new Set(stitchesOf(plan).map(({ area }) => area))]
      .filter((area) => area >= 0)
      .map((area) => places[area]);
    // From the middle to one end, and through the others to the far one.
    const steps = order.slice(1).map((x, i) => Math.abs(x - order[i]));
    expect(Math.max(...steps)).toBeLessThanOrEqual(40);
    expect(steps.reduce((all, step) => all + step, 0)).toBeLessThanOrEqual(80);
  });
  it("is the person's where it was chosen", () => {
    const areas = [0, 15, 30, 45].map((x, face) => ({
      ...chosen([square(x, 25, 5)], {}, "aa0000", face),
      turn: [2, 0, 3, 1][face],
    }));
    const order = [...new Set(stitchesOf(planOf(areas)).map(({ area }) => area))].filter((area) => area >= 0);
    expect(order).toEqual([1, 3, 0, 2]);
  });
  it("sews a border of its fill's thread right after it, and one of another after all that it borders", () => {
    const bordered = (x: number, face: number, spotId: string | null) =>
      chosen([square(x, 10, 10)], { border: { kind: "satin", widthMm: 1.3, spotId } }, "aa0000", face);
    const own = stitchesOf(planOf([bordered(0, 0, null), bordered(20, 1, null)]));
    const turns = own.map(({ area, kind }) =>
      kind === "tie" || area < 0 ? "" : `${area} ${kind === "border" ? "border" : "own"}`,
    );
    const seen = turns.filter((turn, i) => turn !== "" && turn !== turns.slice(0, i).findLast((one) => one !== ""));
    expect(seen.map((turn) => turn.slice(2))).toEqual(["own", "border", "own", "border"]);
    const other = planOf(
      [bordered(0, 0, "0000aa"), bordered(20, 1, "0000aa"), chosen([square(40, 10, 8)], {}, "0000aa", 2)],
      [RED, BLUE],
    );
    expect(commandsOf(other).filter((command) => command === "colour")).toHaveLength(1);
    const blue = stitchesOf(other).filter(({ colour, kind }) => colour === 1 && kind !== "tie");
    expect(blue.findIndex(({ kind }) => kind === "border")).toBeGreaterThan(
      blue.findLastIndex(({ kind }) => kind === "cover"),
    );
    // In a thread that comes before, it is put in once more at the end.
    const again = planOf([bordered(0, 0, "0000aa"), chosen([square(40, 10, 8)], {}, "0000aa", 1)], [BLUE, RED]);
    expect(stitchesOf(again).at(-8)?.kind).toBe("border");
    expect(commandsOf(again).filter((command) => command === "colour")).toHaveLength(2);
  });
  it("stops twice for an applique, with a line for the cloth, one that holds it, and a border over its edge", () => {
    const plan = planOf([chosen([square(10, 10, 20)], { as: "applique" })]);
    expect(commandsOf(plan).filter((command) => command === "colour")).toHaveLength(2);
    expect([...new Set(stitchesOf(plan).map(({ kind }) => kind))]).toEqual(["tie", "guide", "border"]);
  });
});

describe("thread between areas", () => {
  const dots = [chosen([square(5, 20, 5)], {}, "aa0000", 0), chosen([square(40, 20, 5)], {}, "aa0000", 1)];
  it("is tied and trimmed over bare cloth", () => {
    const commands = commandsOf(planOf(dots));
    expect(commands.filter((command) => command === "trim")).toHaveLength(2);
    const plan = planOf(dots);
    const at = commands.indexOf("trim");
    for (const k of [1, 2, 3]) {
      const [i, j] = [at - k, at - k - 1];
      expect(Math.hypot(plan.x[i] - plan.x[j], plan.y[i] - plan.y[j])).toBeLessThanOrEqual(1);
    }
  });
  it("runs hidden under what is sewn over it later, and along what is sewn in its own colour", () => {
    const bridge = ring(0, 18, 60, 18, 60, 27, 0, 27);
    const under = [
      ...dots,
      chosen([bridge, backwards(square(5, 20, 5)), backwards(square(40, 20, 5))], {}, "0000aa", 2),
    ];
    const trims = (plan: ReturnType<typeof planOf>) => commandsOf(plan).filter((command) => command === "trim").length;
    // One for each colour at its end.
    expect(trims(planOf(under, [RED, BLUE]))).toBe(2);
    expect(trims(planOf(under, [BLUE, RED]))).toBe(3);
    // Two arms of one bar that is sewn first, and things of its own colour at both its ends.
    const along = [
      { ...chosen([ring(10, 20, 50, 20, 50, 24, 10, 24)], {}, "aa0000", 0), turn: 0 },
      { ...chosen([square(4.5, 19.5, 5)], {}, "aa0000", 1), turn: 1 },
      { ...chosen([square(50.5, 19.5, 5)], {}, "aa0000", 2), turn: 2 },
    ];
    expect(trims(planOf(along))).toBe(1);
  });
});

describe("a fill under lines", () => {
  it("reaches to their middle, so that no cloth shows beside them; not under what covers by itself", () => {
    const stroke = ring(20, 0, 21.2, 0, 21.2, 40, 20, 40);
    const ground = [ring(0, 0, 40, 0, 40, 40, 0, 40), backwards(stroke)];
    const reach = (as: "bean" | "satin") => {
      const plan = planOf([chosen(ground, {}, "0000aa", 0), chosen([stroke], { as }, "aa0000", 1)], [BLUE, RED]);
      const left = stitchesOf(plan).filter(({ colour, kind, x }) => colour === 0 && kind === "cover" && x < 20.6);
      return Math.max(...left.map(({ x }) => x));
    };
    expect(reach("satin")).toBeCloseTo(20.2, 1);
    expect(reach("bean")).toBeGreaterThan(20.4);
  });
});

describe("any area", () => {
  it("is sewn inside itself and its pull, with stitches that the machine takes", () => {
    const star = fc.record({
      arms: fc.integer({ min: 3, max: 9 }),
      inner: fc.double({ min: 4, max: 14, noNaN: true }),
      outer: fc.double({ min: 15, max: 28, noNaN: true }),
      turn: fc.double({ min: 0, max: 3, noNaN: true }),
      hole: fc.double({ min: 0.5, max: 3, noNaN: true }),
      hx: fc.double({ min: -1, max: 1, noNaN: true }),
      angleDeg: fc.integer({ min: 0, max: 179 }),
    });
    fc.assert(
      fc.property(star, ({ arms, inner, outer, turn, hole, hx, angleDeg }) => {
        const outline = Float64Array.from({ length: arms * 4 }, (_, i) => {
          const k = Math.floor(i / 2);
          const [r, a] = [k % 2 === 0 ? outer : inner, turn + (k * Math.PI) / arms];
          return 30 + r * (i % 2 === 0 ? Math.cos(a) : Math.sin(a));
        });
        const area = chosen(
          [outline, backwards(circle(30 + hx * (inner * 0.3), 30, Math.min(hole, inner * 0.4), 24))],
          { angleDeg },
        );
        const stitches = stitchesOf(planOf([area]));
        expect(stitches.length).toBeGreaterThan(20);
        for (const { x, y, lengthMm } of stitches) {
          expect(distanceOutside(area.rings, x, y)).toBeLessThan(0.2 + 1e-6);
          if (lengthMm > 0) expect(lengthMm).toBeGreaterThan(0.5 - 1e-9);
          expect(lengthMm).toBeLessThan(12.1);
        }
      }),
      {
        numRuns: 200,
        // A row that goes on beside a hole the same way as the one before.
        examples: [
          [
            {
              ...{ arms: 9, inner: 7.205819587784735, outer: 15.27275546745991, turn: 1.8925711381680197 },
              ...{ hole: 2.5359326582569315, hx: -0.6638501406013269, angleDeg: 150 },
            },
          ],
          // A row that reaches much farther than the one before, past a corner that bends inwards; and one that ends much earlier.
          [
            {
              ...{ arms: 3, inner: 10.72587970544, outer: 27.302893718272053, turn: 0 },
              ...{ hole: 1.831617122552357, hx: 0, angleDeg: 23 },
            },
          ],
          [
            {
              ...{ arms: 3, inner: 4.167412378915286, outer: 27.882972422474353, turn: 0 },
              ...{ hole: 0.766269175184421, hx: -0.0019298352397857789, angleDeg: 52 },
            },
          ],
        ],
      },
    );
  });
});

describe("neighbours", () => {
  it("never have one fill angle, whatever meets", () => {
    const wheel = drawSvg(
      200,
      `<rect x="10" y="10" width="180" height="180" fill="#14304f"/>${[
        "#d8412f",
        "#f2b134",
        "#1f7a8c",
        "#f2efe4",
        "#58a6b0",
      ]
        .map((fill, i) => `<rect x="${20 + i * 32}" y="20" width="32" height="80" fill="${fill}"/>`)
        .join("")}<rect x="20" y="100" width="160" height="70" fill="#6b4f9b"/>`,
    );
    const { map, reduction } = traceRaster(wheel);
    const { spots } = reduction;
    const areas = measureAreas(listAreas({ map, spots, widthMm: 200 }), map);
    const angleOf = new Map(areas.map(({ face, proposedAngleDeg }) => [face, proposedAngleDeg]));
    let met = 0;
    for (const { left, right } of map.edges) {
      const [a, b] = [angleOf.get(left), angleOf.get(right)];
      if (a === undefined || b === undefined || left === right) continue;
      met++;
      expect(a).not.toBe(b);
    }
    expect(met).toBeGreaterThan(8);
  });
});

/** How far a place lies outside rings that are right by even-odd, mm; 0 inside. */
function distanceOutside(rings: readonly Float64Array[], x: number, y: number): number {
  let isInside = false;
  let least = Number.POSITIVE_INFINITY;
  for (const one of rings)
    for (let i = 0, j = one.length - 2; i < one.length; j = i, i += 2) {
      const [ax, ay, bx, by] = [one[j], one[j + 1], one[i], one[i + 1]];
      if (ay > y !== by > y && ax + ((y - ay) / (by - ay)) * (bx - ax) > x) isInside = !isInside;
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.min(1, Math.max(0, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      least = Math.min(least, Math.hypot(ax + t * dx - x, ay + t * dy - y));
    }
  return isInside ? 0 : least;
}
