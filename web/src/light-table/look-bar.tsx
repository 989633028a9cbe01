// Under the table: how to look, and what is under the pointer.
import { ciede2000, formatHex, type Rgb, rgbToLab } from "@plain-palette/core/colour";
import type { ReactNode, RefObject } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { Slide } from "../parts/slide.tsx";
import type { TableControls } from "./use-table-view.ts";

export type Look = "source" | "result" | "split" | "difference" | "outlines" | "distance" | "placed";

/** What is known of the place under the pointer. */
export interface ReadOut {
  readonly xMm: number;
  readonly yMm: number;
  readonly source: Rgb | null;
  readonly spot: { readonly name: string; readonly rgb: Rgb } | null;
}

interface Props {
  readonly look: Look;
  /** Ways to look that make sense at this step. */
  readonly looks: readonly Look[];
  /** Said instead of the ways to look, where there is only one. */
  readonly caption: { readonly text: string; readonly note: string } | null;
  onLook(look: Look): void;
  /** How far the source is faded in over the result, 0..1; null where it cannot. */
  readonly fade: number | null;
  onFade(fade: number): void;
  /** What the difference map says as a whole. */
  readonly difference: { readonly share: number; readonly worst: number } | null;
  readonly zoomText: string;
  readonly table: RefObject<TableControls | null>;
  readonly readOut: ReadOut | null;
  /** What to do with the tool in hand. */
  readonly hint: string | null;
  /** At its end. */
  readonly children?: ReactNode;
}

const LOOKS: Readonly<Record<Look, { readonly text: string; readonly title?: string }>> = {
  source: { text: "Source", title: "The client's picture. Hold O to see it at any time" },
  result: { text: "Result" },
  split: { text: "Split" },
  difference: { text: "Difference", title: "Where the result differs from the source, and how much" },
  outlines: { text: "Outlines", title: "Every boundary once, with its nodes" },
  distance: { text: "Distance", title: "How far curves are from the boundaries of the source, and where" },
  placed: { text: "On the garment", title: "On the printable area, at scale" },
};

export function LookBar(props: Props) {
  const { look, looks, caption, onLook, fade, onFade, difference, zoomText, table } = props;
  return (
    <div className="border-t border-rule bg-sheet px-3 pb-1.5 pt-2">
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1">
        {caption === null ? (
          <Choice
            label="Look at"
            value={look}
            options={looks.map((value) => ({ value, ...LOOKS[value] }))}
            onChange={onLook}
          />
        ) : (
          <p className="min-w-0 truncate py-1 font-semibold">{caption.text}</p>
        )}
        <span className="ml-auto flex items-center whitespace-nowrap">
          <Button look="quiet" className="px-1.5" aria-label="Zoom out" onClick={() => table.current?.zoomBy(0.8)}>
            −
          </Button>
          <span className="w-12 text-center">{zoomText}</span>
          <Button look="quiet" className="px-1.5" aria-label="Zoom in" onClick={() => table.current?.zoomBy(1.25)}>
            +
          </Button>
          <Button look="quiet" className="px-1.5" onClick={() => table.current?.fit()}>
            Show all
          </Button>
          <Button
            look="quiet"
            className="px-1.5"
            title="As large as it prints, at 96 screen pixels to the inch"
            onClick={() => table.current?.trueSize()}
          >
            True size
          </Button>
          {props.children}
        </span>
      </div>
      <div className="mt-1 flex h-5 items-center gap-4">
        <ReadOutText {...props} />
        {fade !== null && (
          <span className="ml-auto flex w-52 items-center gap-2 whitespace-nowrap text-xs text-soft">
            Fade in source
            <Slide
              label="Fade in source"
              value={Math.round(fade * 100)}
              min={0}
              max={100}
              onChange={(v) => onFade(v / 100)}
            />
          </span>
        )}
        {look === "difference" && caption === null && difference && <DifferenceSum {...difference} />}
      </div>
    </div>
  );
}

/** What the difference map comes to; its scale lies on the table. */
function DifferenceSum({ share, worst }: { share: number; worst: number }) {
  return (
    <span className="ml-auto whitespace-nowrap text-xs" data-testid="difference">
      {(share * 100).toFixed(1)} % differs visibly, worst ΔE {worst}
    </span>
  );
}

function ReadOutText({ readOut, caption, hint }: Props) {
  if (hint !== null && !readOut) return <p className="truncate text-xs">{hint}</p>;
  if (!readOut)
    return (
      <p className="truncate text-xs leading-5 text-soft">
        {caption?.note ?? "Point at the art to read it."} Hold O to see the source.
      </p>
    );
  const { xMm, yMm, source, spot } = readOut;
  const difference = source && spot ? ciede2000(rgbToLab(source), rgbToLab(spot.rgb)) : null;
  return (
    <p className="flex items-center gap-3 whitespace-nowrap text-xs" data-testid="read-out">
      <span className="w-28">
        {xMm.toFixed(1)}, {yMm.toFixed(1)} mm
      </span>
      {source && <Chip label="Source" rgb={source} text={formatHex(source)} />}
      {spot && <Chip label="Spot" rgb={spot.rgb} text={spot.name} />}
      {difference !== null && <span title="CIEDE2000 between source and spot">ΔE {difference.toFixed(1)}</span>}
    </p>
  );
}

/** The same in words. */
export function sayReadOut({ xMm, yMm, source, spot }: ReadOut): string {
  const colours = [source && `source ${formatHex(source)}`, spot && `spot ${spot.name}`].filter(Boolean);
  return [`${xMm.toFixed(1)}, ${yMm.toFixed(1)} mm`, ...colours].join(", ");
}

function Chip({ label, rgb, text }: { label: string; rgb: Rgb; text: string }) {
  return (
    <span className="inline-flex items-center gap-1.5">
      <span className="text-soft">{label}</span>
      <span className="size-3 border border-soft/60" style={{ background: formatHex(rgb) }} />
      <span className="max-w-40 truncate">{text}</span>
    </span>
  );
}
