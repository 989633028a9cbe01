// What the bench measured, commit by commit: ratios alone, since machines differ. It fails nothing; the plot shows drift.
import { execFileSync } from "node:child_process";
import { appendFileSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { LineChart } from "echarts/charts";
import { GridComponent, LegendComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { ROOT } from "../server-process.ts";

use([LineChart, GridComponent, LegendComponent, SVGRenderer]);

const FOLDER = join(ROOT, "docs", "bench");
const HISTORY = join(FOLDER, "history.jsonl");
const PLOT = join(FOLDER, "history.svg");

/** Colours come again after nine lines. */
const SYMBOLS = ["circle", "rect", "triangle", "diamond"];

/** One run: of which commit, when, and what was measured. */
interface Run {
  readonly commit: string;
  readonly date: string;
  readonly ratios: Readonly<Record<string, number>>;
}

const ratios: Record<string, number> = {};

/** Notes a ratio to a general-purpose library's time in the same run, or to the program's own. */
export function noteRatio(name: string, ratio: number): void {
  ratios[name] = Number(ratio.toPrecision(3));
}

/** Adds what was noted to the history and draws it anew; nothing, where nothing was noted. */
export function keepHistory(): void {
  if (Object.keys(ratios).length === 0) return;
  const git = (...args: string[]) => execFileSync("git", args, { cwd: ROOT, encoding: "utf8" }).trim();
  const isAsCommitted = git("status", "--porcelain", "--untracked-files=no") === "";
  const commit = git("rev-parse", "--short=7", "HEAD") + (isAsCommitted ? "" : "+");
  mkdirSync(FOLDER, { recursive: true });
  appendFileSync(HISTORY, `${JSON.stringify({ commit, date: new Date().toISOString().slice(0, 10), ratios })}\n`);
  const runs = readFileSync(HISTORY, "utf8").trim().split("\n");
  writeFileSync(PLOT, plot(runs.map((line): Run => JSON.parse(line))));
}

/** Every ratio as a line over the runs; on a logarithmic scale, so that half and double look alike. */
function plot(runs: readonly Run[]): string {
  const names = [...new Set(runs.flatMap((run) => Object.keys(run.ratios)))].sort();
  const chart = init(null, null, { renderer: "svg", ssr: true, width: 1000, height: 560 });
  chart.setOption({
    animation: false,
    backgroundColor: "#fbfaf6",
    textStyle: { fontFamily: "sans-serif", color: "#1e1d1a" },
    grid: { left: 64, right: 380, top: 24, bottom: 40 },
    legend: { orient: "vertical", right: 8, top: 24 },
    xAxis: { type: "category", data: runs.map(({ commit, date }) => `${commit}\n${date}`) },
    yAxis: { type: "log", name: "times the other's time", nameLocation: "middle", nameGap: 40 },
    series: names.map((name, k) => ({
      ...{ name, type: "line", connectNulls: true, symbolSize: 7, symbol: SYMBOLS[k % SYMBOLS.length] },
      data: runs.map((run) => run.ratios[name] ?? null),
    })),
  });
  return `${chart.renderToSVGString()}\n`;
}
