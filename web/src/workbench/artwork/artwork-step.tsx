// Artwork: what arrived, and everything it takes until only the design is left, upright and at its size.
import type { ReactNode } from "react";
import { useJob } from "../../job/use-job.ts";
import { SectionTabs } from "../../parts/section-tabs.tsx";
import { useEscape } from "../../parts/use-escape.ts";
import { Panel } from "../panel.tsx";
import { ActionList } from "./action-list.tsx";
import { BackgroundSection } from "./background-section.tsx";
import { isUnanswered, SECTIONS, type Section } from "./desk.ts";
import { LineArtSection } from "./line-art-section.tsx";
import type { SectionProps } from "./section-props.ts";
import { SizeSection } from "./size-section.tsx";
import { TouchUpSection } from "./touch-up-section.tsx";
import { UprightSection } from "./upright-section.tsx";

const OPEN: Readonly<Record<Section, (props: SectionProps) => ReactNode>> = {
  size: SizeSection,
  upright: UprightSection,
  "line-art": LineArtSection,
  background: BackgroundSection,
  "touch-up": TouchUpSection,
};

const TITLES: Readonly<Record<Section, string>> = {
  size: "Size",
  upright: "Upright",
  "line-art": "Line art",
  background: "Background",
  "touch-up": "Touch up",
};

export function ArtworkStep(props: SectionProps) {
  const { desk, change } = props;
  const Open = OPEN[desk.section];
  const actions = useJob((state) => state.recipe.artwork.actions);
  useEscape(() => change({ tool: null, draft: null, focusId: null, sketch: [], trim: null }));
  return (
    <Panel isDone={!isUnanswered(desk)}>
      <SectionTabs
        label="What to do with the artwork"
        value={desk.section}
        sections={SECTIONS.map((value) => ({ value, text: TITLES[value] }))}
        onChange={(section) => {
          // Line art has its greys told only while it is in focus, and there is nothing else in its section.
          const lineArt = section === "line-art" ? actions.findLast(({ kind }) => kind === "line-art") : undefined;
          change({
            section,
            tool: null,
            focusId: lineArt?.id ?? null,
            draft: null,
            trim: null,
            background: null,
            sketch: [],
          });
        }}
      >
        <Open {...props} />
      </SectionTabs>
      <ActionList {...props} />
    </Panel>
  );
}
