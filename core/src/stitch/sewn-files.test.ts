import { describe, expect, it } from "vitest";
import { backwards, circle, ring } from "../area/area.test.support.ts";
import { clockList, findSewFaults, readStitchList, USUAL_MACHINE } from "../practice/index.ts";
import { writeStitchesCsv } from "./index.ts";
import { BLUE, chosen, planOf, RED, stitchesOf } from "./stitch.test.support.ts";
import { writeStitchesSvg } from "./stitches-svg.ts";

const square = (x: number, y: number, side: number) => ring(x, y, x + side, y, x + side, y + side, x, y + side);
const FACTS = { job: "Kites", hoop: "100 x 100 mm", threads: ["R1 Red", "B7 Blue"] };

/** Two threads, fills and satin, a trim between. */
const plan = planOf(
  [
    chosen([square(2, 2, 14)], { angleDeg: 45 }, "aa0000", 0),
    chosen([square(40, 40, 12)], { angleDeg: 135 }, "aa0000", 1),
    chosen([circle(30, 20, 6), backwards(circle(30, 20, 3.5))], { as: "satin" }, "0000aa", 2),
  ],
  [RED, BLUE],
);
const text = writeStitchesCsv(plan, FACTS);
const lines = text.split("\n");
const first = lines.findIndex((line) => line.startsWith("n,")) + 1;

/** The list with its rows changed, numbered anew unless that is what is tried. */
function changed(change: (rows: string[][]) => string[][], isNumbered = true): string {
  const rows = change(lines.slice(first, -1).map((line) => line.split(",")));
  return [
    ...lines.slice(0, first),
    ...rows.map((cells, i) => (isNumbered ? [i + 1, ...cells.slice(1)] : cells).join(",")),
  ].join("\n");
}

const at = (rows: readonly string[][], command: string, from = 0) =>
  rows.findIndex((row, i) => i >= from && row[1] === command);
const without = (rows: string[][], i: number, count = 1) => [...rows.slice(0, i), ...rows.slice(i + count)];
const edit = (rows: string[][], i: number, cells: Partial<Record<1 | 2 | 3 | 4, string>>) =>
  rows.map((row, k) => (k === i ? row.map((cell, c) => cells[c as 1] ?? cell) : row));
const kinds = (file: string) => [...new Set(findSewFaults(readStitchList(file)).map(({ kind }) => kind))];

describe("stitches.csv, read by the practice machine", () => {
  it("is the plan: the same commands, places within a hundredth of a millimetre, threads and size", () => {
    const list = readStitchList(text);
    expect(list.unread).toEqual([]);
    expect([list.widthMm, list.heightMm, list.hoop]).toEqual([60, 60, { widthMm: 100, heightMm: 100 }]);
    expect(list.threads).toEqual(FACTS.threads);
    expect(list.spots).toEqual([
      { id: "aa0000", hex: "#aa0000" },
      { id: "0000aa", hex: "#0000aa" },
    ]);
    const sewn = list.rows.filter(({ command }) => command === "stitch");
    const planned = stitchesOf(plan);
    expect(sewn).toHaveLength(planned.length);
    sewn.forEach(({ x, y, thread }, i) => {
      expect(Math.abs(x + 30 - planned[i].x)).toBeLessThan(0.0051);
      expect(Math.abs(30 - y - planned[i].y)).toBeLessThan(0.0051);
      expect(thread).toBe(planned[i].colour + 1);
    });
  });
  it("has no fault, and takes as long as its stitches, trims and changes do", () => {
    expect(findSewFaults(readStitchList(text))).toEqual([]);
    const list = readStitchList(text);
    const seconds = clockList(list, USUAL_MACHINE).at(-1) ?? 0;
    const of = (command: string) => list.rows.filter((row) => row.command === command).length;
    const least = (of("stitch") / 800) * 60 + of("trim") * 6 + of("colour") * 10;
    expect(seconds).toBeGreaterThan(least);
    expect(seconds).toBeLessThan(least * 1.1 + 30);
  });
  it("a hundred good files have none", () => {
    for (let n = 0; n < 100; n++) {
      const [arms, turn] = [3 + (n % 6), n / 17];
      const star = Float64Array.from({ length: arms * 4 }, (_, i) => {
        const k = Math.floor(i / 2);
        const [r, a] = [k % 2 === 0 ? 12 + (n % 9) : 5 + (n % 4), turn + (k * Math.PI) / arms];
        return 30 + r * (i % 2 === 0 ? Math.cos(a) : Math.sin(a));
      });
      const as = (["fill", "satin", "bean", "run", "applique"] as const)[n % 5];
      const good = planOf(
        [chosen([star], { as, angleDeg: n * 7 }), chosen([square(1, 1, 4 + (n % 3))], {}, "0000aa", 1)],
        [RED, BLUE],
      );
      expect(findSewFaults(readStitchList(writeStitchesCsv(good, FACTS))), `file ${n}`).toEqual([]);
    }
  });
  const far = "61.00";
  it.each<[string, string, string, boolean?]>([
    [
      "a stitch outside the hoop",
      "outside the hoop",
      changed((rows) => edit(rows, at(rows, "stitch", 60), { 2: far })),
    ],
    ["a jump outside the hoop", "outside the hoop", changed((rows) => edit(rows, 0, { 3: "-61.00" }))],
    [
      "a stitch that is too long",
      "too long",
      changed((rows) => edit(rows, 100, { 2: String(Number(rows[99][2]) + 12.4), 3: rows[99][3] })),
    ],
    [
      "a jump that is too long",
      "too long",
      changed((rows) => edit(rows, at(rows, "jump", 5), { 2: "-28.00", 3: "-28.00" })),
    ],
    [
      "a stitch that is too short",
      "too short",
      changed((rows) => {
        const i = at(rows, "stitch", 80);
        return [
          ...rows.slice(0, i + 1),
          ["0", "stitch", String(Number(rows[i][2]) + 0.1), rows[i][3], rows[i][4]],
          ...rows.slice(i + 1),
        ];
      }),
    ],
    ["two stitches in one place", "too short", changed((rows) => [...rows.slice(0, 90), rows[89], ...rows.slice(90)])],
    ["no tie before the first trim", "no tie", changed((rows) => without(rows, at(rows, "trim") - 4, 4))],
    ["no tie before the last trim", "no tie", changed((rows) => without(rows, rows.length - 6, 4))],
    ["no tie where thread begins", "no tie", changed((rows) => without(rows, 2, 4))],
    ["no tie after a trim", "no tie", changed((rows) => without(rows, at(rows, "stitch", at(rows, "trim")) + 1, 4))],
    ["a change without a trim", "not trimmed", changed((rows) => without(rows, at(rows, "colour") - 1))],
    ["a long way without a trim", "not trimmed", changed((rows) => without(rows, at(rows, "trim")))],
    ["a thread that is not there", "unknown thread", changed((rows) => edit(rows, 40, { 4: "3" }))],
    ["thread nought", "unknown thread", changed((rows) => edit(rows, 40, { 4: "0" }))],
    ["no end", "no end", changed((rows) => rows.slice(0, -1))],
    ["something after the end", "no end", changed((rows) => [...rows, rows[50]])],
    ["a command that is none", "not understood", changed((rows) => edit(rows, 40, { 1: "sew" }))],
    ["a place that is no number", "not understood", changed((rows) => edit(rows, 40, { 2: "here" }))],
    ["a row that is missing", "not understood", changed((rows) => without(rows, 70), false)],
    [
      "a needle that stays in one place",
      "one place",
      changed((rows) => {
        const [a, b] = [rows[60], rows[61]];
        return [...rows.slice(0, 62), ...Array.from({ length: 13 }, () => [a, b]).flat(), ...rows.slice(62)];
      }),
    ],
  ])("%s is found", (_, kind, file) => {
    expect(kinds(file)).toContain(kind);
  });
});

describe("stitches.svg", () => {
  it("has a group for each thread in the order of sewing, at true size", () => {
    const svg = writeStitchesSvg(plan);
    expect(svg).toContain('width="60mm" height="60mm" viewBox="0 0 60 60"');
    expect([...svg.matchAll(/data-id="(\w+)"/g)].map(([, id]) => id)).toEqual(["aa0000", "0000aa"]);
  });
});
