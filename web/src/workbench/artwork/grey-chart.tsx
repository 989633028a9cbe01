// How many pixels have each grey, with the cut-off among them: a click puts it there.
import { BarChart } from "echarts/charts";
import { GridComponent, MarkAreaComponent, MarkLineComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";

use([BarChart, GridComponent, MarkLineComponent, MarkAreaComponent, SVGRenderer]);

interface Props {
  readonly counts: Uint32Array;
  /** 0..1 of white. */
  readonly cutOff: number;
  onCutOff(cutOff: number): void;
}

/** Left and right edges of the bars within the chart, px. */
const INSET = 4;
const INK = "#1e1d1a";

export default function GreyChart({ counts, cutOff, onCutOff }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const chart = useRef<ReturnType<typeof init> | null>(null);
  const choose = useRef(onCutOff);
  choose.current = onCutOff;
  useEffect(() => {
    if (!frame.current) return;
    const made = init(frame.current, null, { renderer: "svg" });
    chart.current = made;
    made.getZr().on("click", ({ offsetX }) => {
      const share = (offsetX - INSET) / (made.getWidth() - 2 * INSET);
      choose.current(Math.round(Math.min(0.99, Math.max(0.01, share)) * 100) / 100);
    });
    return () => made.dispose();
  }, []);
  useEffect(() => {
    // Paper has thousands of times the pixels of its lines: roots let both be seen.
    const heights = Array.from(counts, (n) => Math.sqrt(n));
    chart.current?.setOption({
      animation: false,
      grid: { left: INSET, right: INSET, top: 4, bottom: 4 },
      xAxis: { type: "category", show: false, data: heights.map((_, grey) => grey) },
      yAxis: { type: "value", show: false },
      series: [
        {
          type: "bar",
          data: heights,
          barCategoryGap: "0%",
          silent: true,
          itemStyle: { color: "#8d887d" },
          markLine: {
            symbol: "none",
            silent: true,
            label: { show: false },
            lineStyle: { color: INK, width: 2, type: "solid" },
            data: [{ xAxis: Math.round(cutOff * 255) }],
          },
          markArea: {
            silent: true,
            itemStyle: { color: "rgba(30,29,26,.14)" },
            data: [[{ xAxis: 0 }, { xAxis: Math.round(cutOff * 255) }]],
          },
        },
      ],
    });
  }, [counts, cutOff]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={`Greys of the picture, from black to white; the cut-off is at ${Math.round(cutOff * 100)} %`}
      className="h-28 w-full cursor-col-resize forced-color-adjust-none border border-rule bg-card"
    />
  );
}
