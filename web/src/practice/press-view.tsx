// The press: layers as they came off the cutter, laid on the shirt one on the other, slipped and shrunk.
import { type CutLayer, type Laid, pressLayers } from "@plain-palette/core/practice";
import { useEffect, useMemo, useRef, useState } from "react";
import { MmField, NumberField } from "../parts/fields.tsx";
import type { Plan } from "./plan-masks.ts";

interface Props {
  readonly layers: readonly CutLayer[];
  readonly plan: Plan;
  readonly garment: string;
}

/** Layers slip each its own way, so that no two go together: by this much of a turn from one to the next (the golden angle). */
const TURN = 2.399963;

export function PressView({ layers, plan, garment }: Props) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [slipMm, setSlip] = useState(0);
  const [shrinkShare, setShrink] = useState(0);
  const pressed = useMemo(() => {
    const laid = layers.map(
      ({ film }, k): Laid => ({
        mask: film,
        dxMm: slipMm * Math.cos(k * TURN),
        dyMm: slipMm * Math.sin(k * TURN),
        shrinkShare,
      }),
    );
    return pressLayers(laid);
  }, [layers, slipMm, shrinkShare]);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || pressed.width === 0) return;
    const colours = [garment, ...layers.map(({ id }) => plan.layers.find((one) => one.id === id)?.colour ?? "#808080")];
    const values = colours.map((hex) => Number.parseInt(hex.slice(1), 16));
    const image = new ImageData(pressed.width, pressed.height);
    for (let p = 0; p < pressed.top.length; p++) {
      const value = values[pressed.top[p] ?? 0] ?? 0;
      image.data.set([value >> 16, (value >> 8) & 255, value & 255, 255], p * 4);
    }
    context.putImageData(image, 0, 0);
  }, [pressed, layers, plan, garment]);
  return (
    <section aria-label="Press" className="mt-6">
      <h2 className="pb-1 font-semibold">Pressed</h2>
      <div className="flex flex-wrap gap-6">
        <div className="w-64">
          <MmField label="Film slips by" valueMm={slipMm} min={0} max={5} onChange={setSlip} />
          <NumberField
            label="Film shrinks by"
            value={Number((shrinkShare * 100).toFixed(2))}
            unit="%"
            min={0}
            max={5}
            stepBy={0.1}
            onChange={(percent) => setShrink(percent / 100)}
          />
          <p className="text-xs text-soft">Each layer slips its own way, and shrinks towards its own middle.</p>
        </div>
        <canvas
          ref={canvas}
          role="img"
          aria-label="The shirt as it is pressed"
          width={pressed.width}
          height={pressed.height}
          className="max-h-[26rem] max-w-full border border-rule"
        />
      </div>
    </section>
  );
}
