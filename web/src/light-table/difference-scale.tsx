// The scale of the difference map with how much of the picture lies where on it.
import { BarChart } from "echarts/charts";
import { GridComponent, VisualMapComponent } from "echarts/components";
import { init, use } from "echarts/core";
import { SVGRenderer } from "echarts/renderers";
import { useEffect, useRef } from "react";
import { DIFFERENCE_COLOURS } from "../compute/difference-colours.ts";

use([BarChart, GridComponent, VisualMapComponent, SVGRenderer]);

/** `counts`: pixels for every CIEDE2000 unit, the last for all above. */
export default function DifferenceScale({ counts }: { readonly counts: readonly number[] }) {
  const frame = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!frame.current) return;
    const chart = init(frame.current, null, { renderer: "svg" });
    // What does not differ would dwarf the rest.
    const differing = counts.map((n, i) => (i === 0 ? 0 : n));
    const most = Math.max(1, ...differing);
    const top = counts.length - 1;
    chart.setOption({
      animation: false,
      textStyle: { fontFamily: "Public Sans, sans-serif" },
      grid: { left: 34, right: 32, top: 8, bottom: 30 },
      xAxis: { type: "value", show: false, min: 0, max: top + 1 },
      yAxis: { type: "value", show: false, max: 1 },
      visualMap: {
        type: "continuous",
        dimension: 0,
        seriesIndex: 0,
        min: 0,
        max: top,
        orient: "horizontal",
        left: "center",
        bottom: 2,
        itemWidth: 10,
        itemHeight: 190,
        text: [`${top}+`, "ΔE 0"],
        textGap: 6,
        calculable: false,
        hoverLink: false,
        inRange: { color: DIFFERENCE_COLOURS },
      },
      series: [
        {
          type: "bar",
          silent: true,
          barWidth: 5,
          itemStyle: { borderColor: "#8d887d", borderWidth: 0.5 },
          data: differing.map((n, i) => [i + 0.5, n / most]),
        },
      ],
    });
    return () => chart.dispose();
  }, [counts]);
  return (
    <div
      ref={frame}
      role="img"
      aria-label="Scale of the difference map, with how much of the picture lies where on it"
      className="h-24 w-64"
    />
  );
}
