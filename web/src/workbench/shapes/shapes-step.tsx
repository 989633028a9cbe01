// Shapes: how closely curves follow the picture, what is too small to keep, fewer nodes, and the shapes as files.
import type { RefObject } from "react";
import type { Ask, Computed } from "../../compute/use-compute.ts";
import type { TableControls } from "../../light-table/use-table-view.ts";
import { SectionTabs } from "../../parts/section-tabs.tsx";
import { useEscape } from "../../parts/use-escape.ts";
import type { ArtSize } from "../drawn-trace.ts";
import { Panel } from "../panel.tsx";
import type { HandDesk } from "./by-hand/hand-desk.ts";
import { HandSection } from "./by-hand/hand-section.tsx";
import { FilesSection } from "./files-section.tsx";
import type { LetteringDesk } from "./lettering/lettering-desk.ts";
import { LetteringSection } from "./lettering/lettering-section.tsx";
import type { MotifDesk } from "./motifs/motif-desk.ts";
import { MotifSection } from "./motifs/motif-section.tsx";
import { type ChangeShapesDesk, isByHand, SHAPE_SECTIONS, type ShapeSection, type ShapesDesk } from "./shapes-desk.ts";
import { SimplifySection } from "./simplify-section.tsx";
import { TraceSection } from "./trace-section.tsx";

interface Props {
  readonly computed: Computed;
  readonly ask: Ask;
  readonly mmPerPx: number;
  readonly size: ArtSize;
  readonly desk: ShapesDesk;
  readonly hand: HandDesk;
  readonly lettering: LetteringDesk;
  readonly motifs: MotifDesk;
  readonly change: ChangeShapesDesk;
  readonly table: RefObject<TableControls | null>;
}

const TITLES: Readonly<Record<ShapeSection, string>> = {
  trace: "Trace",
  hand: "By hand",
  lettering: "Lettering",
  motifs: "Motifs",
  simplify: "Fewer nodes",
  files: "Files",
};

export function ShapesStep({ computed, ask, mmPerPx, desk, hand, lettering, motifs, size, change, table }: Props) {
  useEscape(() => {
    change({ trying: null });
    hand.letGo();
    lettering.letGo();
    motifs.letGo();
  });
  return (
    <Panel isDone={desk.trying === null && !isByHand(desk.section)}>
      <SectionTabs
        label="What to do with the shapes"
        value={desk.section}
        sections={SHAPE_SECTIONS.map((value) => ({ value, text: TITLES[value] }))}
        onChange={(section) => change({ section, trying: null })}
      >
        {desk.section === "trace" && <TraceSection traced={computed.traced} mmPerPx={mmPerPx} table={table} />}
        {desk.section === "hand" && <HandSection desk={hand} computed={computed} table={table} />}
        {desk.section === "lettering" && <LetteringSection desk={lettering} computed={computed} size={size} />}
        {desk.section === "motifs" && <MotifSection desk={motifs} computed={computed} size={size} />}
        {desk.section === "simplify" && (
          <SimplifySection computed={computed} mmPerPx={mmPerPx} desk={desk} change={change} />
        )}
        {desk.section === "files" && <FilesSection computed={computed} ask={ask} mmPerPx={mmPerPx} />}
      </SectionTabs>
    </Panel>
  );
}
