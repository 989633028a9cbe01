// The merge ladder: what it costs to go down to each number of colours, and which two become one there.
import { formatHex, type Rgb } from "@plain-palette/core/colour";
import { BarChart, ScatterChart } from "echarts/charts";
import { GridComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

use([BarChart, ScatterChart, GridComponent, SVGRenderer]);

/** A number of colours, the cost of coming down to it, and the two that become one on the way. */
export interface LadderStep {
  readonly count: number;
  readonly cost: number;
  /** The one that was taken in, and the one that took it; null at the top. */
  readonly merged: readonly [Rgb, Rgb] | null;
}

interface Props {
  /** From the lowest number up. */
  readonly steps: readonly LadderStep[];
  readonly count: number;
  onCount(count: number): void;
}

const INK = "#1e1d1a";
const FAINT = "#b9b4a8";
const LEFT = 2;
/** Rows of swatches below the bars. */
const ROW = 0.16;

export default function LadderChart({ steps, count, onCount }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const chart = useRef<ReturnType<typeof init> | null>(null);
  const choose = useRef((_at: number) => {});
  choose.current = (at) => {
    const step = steps[Math.min(steps.length - 1, Math.max(0, Math.floor(at * steps.length)))];
    if (step) onCount(step.count);
  };
  useEffect(() => {
    if (!frame.current) return;
    const made = init(frame.current, null, { renderer: "svg" });
    chart.current = made;
    made.getZr().on("click", ({ offsetX }) => choose.current((offsetX - LEFT) / (made.getWidth() - 2 * LEFT)));
    return () => made.dispose();
  }, []);
  useEffect(() => {
    const most = Math.max(1e-6, ...steps.map(({ cost }) => cost));
    const swatches = (row: number, pick: 0 | 1) => ({
      type: "scatter" as const,
      symbol: "rect",
      symbolSize: [Math.min(14, 200 / steps.length), 8],
      silent: true,
      data: steps.flatMap((step, i) => {
        const color = step.merged ? formatHex(step.merged[pick]) : null;
        return color
          ? [{ value: [i, -ROW * row], itemStyle: { color, opacity: 1, borderColor: "#8d887d", borderWidth: 0.5 } }]
          : [];
      }),
    });
    chart.current?.setOption(
      {
        animation: false,
        textStyle: { fontFamily: "Public Sans, sans-serif" },
        grid: { left: LEFT, right: LEFT, top: 14, bottom: 18 },
        xAxis: {
          type: "category",
          data: steps.map((step) => String(step.count)),
          axisLine: { show: false },
          axisTick: { show: false },
          axisLabel: { color: INK, fontSize: 11, interval: steps.length > 18 ? "auto" : 0, margin: 6 },
        },
        yAxis: { type: "value", show: false, min: -ROW * 2.6, max: 1 },
        series: [
          {
            type: "bar",
            silent: true,
            barCategoryGap: "35%",
            // Costs spread over orders of magnitude: roots let the first rungs be seen.
            data: steps.map((step) => ({
              value: Math.sqrt(step.cost / most),
              itemStyle: { color: step.count >= count ? INK : FAINT },
            })),
          },
          swatches(1, 0),
          swatches(2, 1),
        ],
      },
      true,
    );
  }, [steps, count]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={`Cost of going down to each number of colours; ${count} now`}
      className="h-28 w-full cursor-pointer forced-color-adjust-none border border-rule bg-card"
    />
  );
}
