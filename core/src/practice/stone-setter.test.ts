// The practice bench's stone setter on files with faults that were put there, and on good ones.
import { describe, expect, it } from "vitest";
import { circle, ring } from "../area/area.test.support.ts";
import { measureLine } from "../area/index.ts";
import { writeHpgl } from "../cut/index.ts";
import { writeShapesSvg } from "../formats/index.ts";
import {
  type FillNumbers,
  fillInRows,
  fillLeft,
  layTemplates,
  planHoles,
  Setting,
  type Stone,
  setRows,
  type TemplateSplit,
  writeStonesCsv,
} from "../stone/index.ts";
import { STONE_SIZES, type StoneSize } from "../trade/index.ts";
import { setJob } from "./index.ts";

const DESIGN = { widthMm: 90, heightMm: 60 };
const SPOTS = [
  { id: "aa0000", rgb: [201, 36, 47] },
  { id: "0000aa", rgb: [20, 48, 79] },
] as const;
const GAPS = { gapMm: 0.4, leastMm: 0.3 };

const numbers = (size: StoneSize, spotId: string): FillNumbers => ({ size, spotId, angleDeg: 0, gaps: GAPS });

function good(): readonly Stone[] {
  const setting = new Setting(GAPS.leastMm);
  fillInRows([ring(4, 4, 34, 4, 34, 24, 4, 24)], "hexagons", numbers("SS10", "aa0000"), setting);
  fillInRows([circle(66, 34, 14)], "squares", numbers("SS6", "0000aa"), setting);
  return setting.stones;
}
const STONES = good();

type Format = "svg" | "plt";

function filesOf(stones: readonly Stone[], split: TemplateSplit, isMirrored = false, format: Format = "svg") {
  const templates = layTemplates(stones, DESIGN, split, isMirrored);
  const write = (template: (typeof templates)[number]) =>
    format === "svg" ? writeShapesSvg(template.drawing) : writeHpgl(planHoles(template));
  return new Map(templates.map((template) => [`template-${template.name}.${format}`, write(template)]));
}
const listOf = (stones: readonly Stone[]) =>
  writeStonesCsv(stones, { job: "Crest", ...DESIGN, nameOf: (id) => `Stone, ${id}`, spots: SPOTS });

const kindsOf = (files: ReadonlyMap<string, string>, list: string) => [
  ...new Set(setJob(files, list).faults.map(({ kind }) => kind)),
];
/** The same files with the text of one changed. */
function changed(split: TemplateSplit, name: string, change: (text: string) => string) {
  const files = filesOf(STONES, split);
  const text = files.get(name);
  if (text === undefined) throw new Error(`no ${name}`);
  const other = change(text);
  if (other === text) throw new Error("nothing was changed");
  return files.set(name, other);
}
const rows = (change: (cells: string[]) => string[] | null, at = 0) => {
  const lines = listOf(STONES).split("\n");
  const first = lines.findIndex((line) => line.startsWith("x_mm")) + 1;
  const cells = /^([^,]*),([^,]*),([^,]*),([^,]*),("[^"]*"),(.*)$/.exec(lines[first + at])?.slice(1) ?? [];
  const other = change(cells);
  return [...lines.slice(0, first + at), ...(other ? [other.join(",")] : []), ...lines.slice(first + at + 1)].join(
    "\n",
  );
};
/** One hole's path data in the SVG, and all paths of a group. */
const HOLE = /M[\d.]+ [\d.]+(?:C[^MZ]*)+Z/;
const moved = (stone: Stone, dx: number): Stone => ({ ...stone, x: stone.x + dx });

describe("a good job", () => {
  it("has no fault: every hole takes its stone, counted by size, whatever the format and the split", () => {
    for (const split of ["one", "sizes", "colours"] as const)
      for (const isMirrored of [false, true])
        for (const format of ["svg", "plt"] as const) {
          const job = setJob(filesOf(STONES, split, isMirrored, format), listOf(STONES));
          expect(job.faults).toEqual([]);
          expect(job.templates.every((template) => template.isMirrored === isMirrored)).toBe(true);
          for (const size of ["SS10", "SS6"])
            expect(job.counts.get(size)).toBe(STONES.filter((stone) => stone.size === size).length);
        }
  });
  it("has none in two hundred random ones", { timeout: 300_000 }, () => {
    let seed = 5;
    const random = () => {
      seed = (seed * 48271) % 2147483647;
      return seed / 2147483647;
    };
    for (let n = 0; n < 200; n++) {
      const setting = new Setting(GAPS.leastMm);
      const size = () => STONE_SIZES[Math.floor(random() * STONE_SIZES.length)];
      const [x, y, r] = [25 + random() * 40, 20 + random() * 20, 6 + random() * 10];
      const line = measureLine([...circle(x, y, r + 6), ...circle(x, y, r + 6).slice(0, 2)]);
      setRows([{ line, isClosed: true, size: size(), spotId: "0000aa", fixed: [] }], setting, GAPS);
      const own = numbers(size(), "aa0000");
      fillInRows([circle(x, y, r)], random() < 0.5 ? "hexagons" : "squares", own, setting);
      if (random() < 0.5) fillLeft([circle(x, y, r)], numbers("SS6", "aa0000"), setting);
      const inside = setting.stones.filter((one) => one.x > 0 && one.y > 0 && one.x < 90 && one.y < 60);
      const split = (["one", "sizes", "colours"] as const)[n % 3];
      const files = filesOf(inside, split, n % 2 === 0, n % 4 < 2 ? "svg" : "plt");
      expect(setJob(files, listOf(inside)).faults, `file ${n}`).toEqual([]);
    }
  });
});

describe("a fault is found:", () => {
  const svg = "template-all.svg";
  const [first, second] = STONES;
  const cases: readonly (readonly [string, string, () => string[]])[] = [
    [
      "holes that run into each other",
      "touching",
      () => {
        const near = [...STONES, { ...first, x: first.x + 3, y: first.y - 0.3 }].filter((one) => one !== second);
        return kindsOf(filesOf(near, "one"), listOf(near));
      },
    ],
    [
      "a hole that no stone fits",
      "no size",
      () => kindsOf(filesOf(STONES, "one").set(svg, writeShapesSvg(widened(0.5))), listOf(STONES)),
    ],
    [
      "a hole that is too tight",
      "no size",
      () => kindsOf(filesOf(STONES, "one").set(svg, writeShapesSvg(widened(-0.2))), listOf(STONES)),
    ],
    [
      "a hole for another size",
      "wrong size",
      () => {
        const other = STONES.map((one, i) => (i === 0 ? { ...one, size: "SS8" as const } : one));
        return kindsOf(filesOf(other, "one"), listOf(STONES));
      },
    ],
    [
      "a hole cut twice",
      "cut twice",
      () =>
        kindsOf(
          changed("one", svg, (text) => text.replace(HOLE, (hole) => `${hole}${hole}`)),
          listOf(STONES),
        ),
    ],
    [
      "an open cut",
      "open",
      () =>
        kindsOf(
          changed("one", svg, (text) => text.replace(/(M[\d.]+ [\d.]+(?:C[^MCZ]*){3})C[^MCZ]*Z/, "$1")),
          listOf(STONES),
        ),
    ],
    [
      "a hole that is not round",
      "not round",
      () =>
        kindsOf(
          changed("one", svg, (text) => text.replace(/M([\d.]+) /, (_, x) => `M${Number(x) + 1} `)),
          listOf(STONES),
        ),
    ],
    [
      "templates of which one is moved",
      "not lined up",
      () =>
        kindsOf(filesOf(STONES, "sizes").set("template-SS6.svg", writeShapesSvg(shiftedRegister())), listOf(STONES)),
    ],
    [
      "a register hole that is missing",
      "not lined up",
      () =>
        kindsOf(
          changed("sizes", "template-SS6.svg", (text) => text.replace(/(data-use="register".*?d=")M[^Z]*Z/, "$1")),
          listOf(STONES),
        ),
    ],
    [
      "one template mirrored and one not",
      "mirrored",
      () => {
        const files = filesOf(STONES, "sizes");
        files.set("template-SS6.svg", filesOf(STONES, "sizes", true).get("template-SS6.svg") ?? "");
        return kindsOf(files, listOf(STONES));
      },
    ],
    [
      "a template that is not there",
      "no hole",
      () => {
        const files = filesOf(STONES, "sizes");
        files.delete("template-SS6.svg");
        return kindsOf(files, listOf(STONES));
      },
    ],
    [
      "a stone in two templates",
      "set twice",
      () => {
        const files = filesOf(STONES, "colours");
        files.set("template-more.svg", filesOf([first], "one").get(svg) ?? "");
        return kindsOf(files, listOf(STONES));
      },
    ],
    [
      "a hole without a stone in the list",
      "no stone",
      () =>
        kindsOf(
          filesOf(STONES, "one"),
          rows(() => null),
        ),
    ],
    [
      "a hole a tenth of a millimetre off",
      "no stone",
      () => kindsOf(filesOf([moved(first, 0.1), ...STONES.slice(1)], "one"), listOf(STONES)),
    ],
    [
      "stones on each other",
      "overlap",
      () => {
        const twice = [...STONES, moved(first, 1)];
        return kindsOf(filesOf(STONES, "one"), listOf(twice));
      },
    ],
    [
      "a size that does not exist",
      "unknown size",
      () =>
        kindsOf(
          filesOf(STONES, "one"),
          rows(([x, y, , d, ...more]) => [x, y, "SS11", d, ...more]),
        ),
    ],
    [
      "a width that is not its size's",
      "wrong width",
      () =>
        kindsOf(
          filesOf(STONES, "one"),
          rows(([x, y, size, , ...more]) => [x, y, size, "3.1", ...more]),
        ),
    ],
    [
      "a row that is none",
      "not understood",
      () =>
        kindsOf(
          filesOf(STONES, "one"),
          rows(([, y, ...more]) => ["here", y, ...more]),
        ),
    ],
    [
      "a stone outside the design",
      "outside",
      () =>
        kindsOf(
          filesOf(STONES, "one"),
          rows(([, ...more]) => ["-3.000", ...more]),
        ),
    ],
    [
      "a file that is no template",
      "not understood",
      () => kindsOf(new Map([[svg, "<svg><rect/></svg>"]]), listOf(STONES)),
    ],
  ];
  it.each(cases)("%s", (_, kind, find) => {
    expect(find()).toContain(kind);
  });

  function drawing(split: TemplateSplit, name: string) {
    const template = layTemplates(STONES, DESIGN, split, false).find((one) => one.name === name);
    if (!template) throw new Error(`no template ${name}`);
    return template.drawing;
  }
  /** The first hole wider by so much. */
  function widened(byMm: number) {
    const all = drawing("one", "all");
    return {
      ...all,
      lines: all.lines?.map((group, g) => ({
        ...group,
        lines: group.lines.map((path, i) => {
          if (g > 0 || i > 0) return path;
          const middle = [0, 1].map((axis) => (path[axis] + path[12 + axis]) / 2);
          const radius = Math.hypot(path[0] - middle[0], path[1] - middle[1]);
          return path.map((v, k) => middle[k % 2] + (v - middle[k % 2]) * (1 + byMm / 2 / radius)) as typeof path;
        }),
      })),
    };
  }
  /** One of the register holes half a millimetre off. */
  function shiftedRegister() {
    const all = drawing("sizes", "SS6");
    return {
      ...all,
      lines: all.lines?.map((group) =>
        group.use !== "register"
          ? group
          : {
              ...group,
              lines: group.lines.map((path, i) =>
                i === 1 ? (path.map((v, k) => v + (k % 2 === 0 ? 0.5 : 0)) as typeof path) : path,
              ),
            },
      ),
    };
  }
});
