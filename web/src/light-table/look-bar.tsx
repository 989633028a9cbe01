// Under the table: how to look, and what is under the pointer.
import { ciede2000, formatHex, type Rgb, rgbToLab } from "@plain-palette/core/colour";
import type { RefObject } from "react";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import type { TableControls } from "./light-table.tsx";

export type Look = "source" | "result" | "split" | "outlines";

/** What is known of the place under the pointer. */
export interface ReadOut {
  readonly xMm: number;
  readonly yMm: number;
  readonly source: Rgb | null;
  readonly spot: { readonly name: string; readonly rgb: Rgb } | null;
}

interface Props {
  readonly look: Look;
  /** Said instead of the ways to look, where there is only one. */
  readonly caption: string | null;
  onLook(look: Look): void;
  readonly zoomText: string;
  readonly table: RefObject<TableControls | null>;
  readonly readOut: ReadOut | null;
}

const LOOKS = [
  { value: "source", text: "Source", title: "The client's picture. Hold O to see it at any time" },
  { value: "result", text: "Result" },
  { value: "split", text: "Split" },
  { value: "outlines", text: "Outlines" },
] as const;

export function LookBar({ look, caption, onLook, zoomText, table, readOut }: Props) {
  return (
    <div className="border-t border-rule bg-sheet px-3 pb-1.5 pt-2">
      <div className="flex items-center gap-2">
        {caption === null ? (
          <Choice label="Look at" value={look} options={LOOKS} onChange={onLook} />
        ) : (
          <p className="min-w-0 truncate py-1 font-semibold">{caption}</p>
        )}
        <span className="ml-auto flex items-center whitespace-nowrap">
          <Button look="quiet" aria-label="Zoom out" onClick={() => table.current?.zoomBy(0.8)}>
            −
          </Button>
          <span className="w-14 text-center">{zoomText}</span>
          <Button look="quiet" aria-label="Zoom in" onClick={() => table.current?.zoomBy(1.25)}>
            +
          </Button>
          <Button look="quiet" onClick={() => table.current?.fit()}>
            Show all
          </Button>
          <Button
            look="quiet"
            title="As large as it prints, at 96 screen pixels to the inch"
            onClick={() => table.current?.trueSize()}
          >
            True size
          </Button>
        </span>
      </div>
      <ReadOutText readOut={readOut} isFilm={caption !== null} />
    </div>
  );
}

function ReadOutText({ readOut, isFilm }: { readOut: ReadOut | null; isFilm: boolean }) {
  if (!readOut)
    return (
      <p className="mt-1 h-5 text-xs leading-5 text-soft">
        {isFilm ? "As the film comes out of the printer." : "Point at the art to read it."} Hold O to see the source.
      </p>
    );
  const { xMm, yMm, source, spot } = readOut;
  const difference = source && spot ? ciede2000(rgbToLab(source), rgbToLab(spot.rgb)) : null;
  return (
    <p className="mt-1 flex h-5 items-center gap-3 whitespace-nowrap text-xs" data-testid="read-out">
      <span className="w-28">
        {xMm.toFixed(1)}, {yMm.toFixed(1)} mm
      </span>
      {source && <Chip label="Source" rgb={source} text={formatHex(source)} />}
      {spot && <Chip label="Spot" rgb={spot.rgb} text={spot.name} />}
      {difference !== null && <span title="CIEDE2000 between source and spot">ΔE {difference.toFixed(1)}</span>}
    </p>
  );
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
