// The line of lettering in hand by its words and numbers.

import { ALIGNMENTS, type Alignment } from "@plain-palette/core/lettering";
import { turn } from "@plain-palette/core/raster";
import { LETTERING_LIMITS, type LetteringEntry } from "@plain-palette/core/recipe";
import type { Spot } from "@plain-palette/core/reduce";
import { useEffect, useId, useRef } from "react";
import { Button } from "../../../parts/button.tsx";
import { Choice } from "../../../parts/choice.tsx";
import { MmField, NumberField, Row } from "../../../parts/fields.tsx";
import { Group } from "../../panel.tsx";
import { DressGroup } from "./dress-group.tsx";
import { carryNudges, perMm } from "./letter-grips.ts";
import { LetterGroup } from "./letter-group.tsx";
import type { LetteringDesk } from "./lettering-desk.ts";
import { baselineToEntry } from "./places.ts";
import { TypefaceChoice } from "./typeface-choice.tsx";

interface Props {
  readonly desk: LetteringDesk;
  readonly entry: LetteringEntry;
  readonly spots: readonly Spot[];
}

const ALIGN_WORDS: Readonly<Record<Alignment, string>> = { left: "Left", middle: "Middle", right: "Right" };

export function LineGroup({ desk, entry, spots }: Props) {
  const { view, frame, mmPerPx, typefaces, setLine, letter } = desk;
  const set = (part: Partial<LetteringEntry>) => setLine({ ...entry, ...part });
  const scale = view && frame ? perMm(view, frame, mmPerPx) : null;
  return (
    <>
      <Group title="Words">
        <WordsField
          text={entry.text}
          isTyping={desk.isTyping}
          onChange={(text) => set({ text, nudges: carryNudges(entry.text, text, entry.nudges) })}
        />
        <TypefaceChoice
          typefaces={typefaces}
          value={entry.typeface}
          words={entry.text}
          onChange={(typeface) => set({ typeface })}
        />
        {view && view.missing.length > 0 && (
          <p role="status" className="pb-1 text-xs text-wrong">
            This typeface has no {view.missing.join(" ")}.
          </p>
        )}
      </Group>
      {view && letter !== null && <LetterGroup desk={desk} entry={entry} view={view} at={letter} />}
      <Group title="Size and place">
        {scale && (
          <MmField
            label="Capitals"
            valueMm={Number((entry.capPx / scale).toFixed(3))}
            min={0.5}
            max={1000}
            onChange={(mm) => set({ capPx: mm * scale })}
          />
        )}
        <NumberField
          label="Width"
          value={entry.widthPercent}
          unit="%"
          stepBy={1}
          {...LETTERING_LIMITS.widthPercent}
          onChange={(widthPercent) => set({ widthPercent })}
        />
        <NumberField
          label="Slant"
          value={entry.slantDeg}
          unit="°"
          stepBy={1}
          {...LETTERING_LIMITS.slantDeg}
          onChange={(slantDeg) => set({ slantDeg })}
        />
        <NumberField
          label="Between letters"
          value={entry.letterSpacing}
          unit="%"
          stepBy={1}
          {...LETTERING_LIMITS.letterSpacing}
          hint={entry.letterSpacing === 0 ? undefined : "Of the capitals' height, more or less than usual"}
          onChange={(letterSpacing) => set({ letterSpacing })}
        />
        {entry.text.includes("\n") && (
          <NumberField
            label="Line to line"
            value={entry.lineSpacing}
            unit="%"
            stepBy={5}
            {...LETTERING_LIMITS.lineSpacing}
            onChange={(lineSpacing) => set({ lineSpacing })}
          />
        )}
        <Row label="Align" isWide>
          <Choice
            label="Align"
            value={entry.align}
            options={ALIGNMENTS.map((value) => ({ value, text: ALIGN_WORDS[value] }))}
            isSmall
            onChange={(align: Alignment) => setLine(alignedAs(desk, entry, align))}
          />
        </Row>
        <BaselineFields desk={desk} entry={entry} />
      </Group>
      <DressGroup entry={entry} spots={spots} perMm={scale} set={set} />
    </>
  );
}

interface WordsProps {
  readonly text: string;
  readonly isTyping: boolean;
  onChange(text: string): void;
}

function WordsField({ text, isTyping, onChange }: WordsProps) {
  const id = useId();
  const field = useRef<HTMLTextAreaElement>(null);
  // What was just begun is typed over.
  useEffect(() => {
    if (isTyping) field.current?.select();
  }, [isTyping]);
  return (
    <>
      <label htmlFor={id} className="sr-only">
        Words
      </label>
      <textarea
        id={id}
        ref={field}
        dir="auto"
        rows={Math.min(4, text.split("\n").length + 1)}
        maxLength={LETTERING_LIMITS.text}
        className="w-full resize-y rounded-[3px] border border-edge bg-card px-2 py-1"
        value={text}
        onChange={(event) => event.target.value !== "" && onChange(event.target.value.normalize())}
      />
    </>
  );
}

/** Aligned otherwise, in the same place. */
function alignedAs({ view, frame }: LetteringDesk, entry: LetteringEntry, align: Alignment): LetteringEntry {
  const row = view?.baselines[0];
  const baseline = view?.set.baseline;
  const at = row?.[{ left: 0, middle: row.length >> 1, right: row.length - 1 }[align]];
  if (!at || !frame || baseline?.kind !== "line") return { ...entry, align };
  const moved = { ...baseline, at: { x: at.x, y: at.y }, along: { x: at.cos, y: at.sin } };
  return { ...entry, align, baseline: baselineToEntry(moved, frame) };
}

/** Radius of an arc that is begun, in widths of the line. */
const FIRST_RADIUS = 1.2;

function BaselineFields({ desk, entry }: { desk: LetteringDesk; entry: LetteringEntry }) {
  const { view, frame, mmPerPx, way, change, setLine } = desk;
  const baseline = view?.set.baseline;
  if (!view || !frame || !baseline) return null;
  const row = view.baselines[0] ?? [];
  const middle = row[row.length >> 1];
  const width = Math.hypot((row.at(-1)?.x ?? 0) - (row[0]?.x ?? 0), (row.at(-1)?.y ?? 0) - (row[0]?.y ?? 0));
  const line =
    baseline.kind === "line"
      ? baseline
      : { kind: "line" as const, at: middle ?? { x: 0, y: 0 }, along: { x: 1, y: 0 }, radius: null };
  const put = (part: Partial<typeof line>) =>
    setLine({ ...entry, baseline: baselineToEntry({ ...line, ...part }, frame) }, { way: "set" });
  const angleDeg = Number(((Math.atan2(line.along.y, line.along.x) * 180) / Math.PI).toFixed(2));
  const kind =
    baseline.kind === "curve" ? "edge" : line.radius === null ? "straight" : line.radius > 0 ? "over" : "under";
  const choose = (next: string) => {
    if (next === "edge") change({ way: "edge" });
    else if (next === "straight") put({ radius: null });
    else {
      const radius = Math.abs(line.radius ?? width * FIRST_RADIUS) || 1;
      put({ radius: next === "over" ? radius : -radius });
    }
  };
  return (
    <>
      <p className="pt-1 text-xs text-soft">Stands on</p>
      <Choice
        label="Stands on"
        value={way === "edge" ? "edge" : kind}
        options={[
          { value: "straight", text: "A line" },
          { value: "over", text: "Arc over" },
          { value: "under", text: "Arc under" },
          { value: "edge", text: "An edge" },
        ]}
        isSmall
        onChange={choose}
      />
      {way === "edge" && (
        <p role="status" className="pt-1 text-xs">
          Click beside the edge it should stand along. <Button onClick={() => change({ way: "set" })}>Leave it</Button>
        </p>
      )}
      {way === "points" ? (
        <p role="status" className="pt-1 text-xs">
          {desk.points.length} of 3 points: where it begins, on its way, where it ends.{" "}
          <Button onClick={() => change({ way: "set", points: [] })}>Leave it</Button>
        </p>
      ) : (
        <Button className="mt-1" onClick={() => change({ way: "points", points: [] })}>
          Arc through three points
        </Button>
      )}
      {baseline.kind === "line" ? (
        <>
          <NumberField
            label="Angle"
            value={angleDeg}
            unit="°"
            min={-180}
            max={180}
            stepBy={1}
            onChange={(deg) => {
              const { sin, cos } = turn(deg);
              put({ along: { x: cos, y: sin } });
            }}
          />
          {line.radius !== null && (
            <MmField
              label="Radius"
              valueMm={Number((Math.abs(line.radius) * mmPerPx).toFixed(2))}
              min={0.5}
              max={20_000}
              onChange={(mm) => put({ radius: (Math.sign(line.radius ?? 1) * mm) / mmPerPx })}
            />
          )}
        </>
      ) : (
        <EdgeFields desk={desk} entry={entry} />
      )}
    </>
  );
}

function EdgeFields({ desk, entry }: { desk: LetteringDesk; entry: LetteringEntry }) {
  const { view, frame, mmPerPx, setLine } = desk;
  const { baseline } = entry;
  if (baseline.kind !== "curve" || !view || !frame) return null;
  const scale = perMm(view, frame, mmPerPx);
  const put = (part: Partial<typeof baseline>) => setLine({ ...entry, baseline: { ...baseline, ...part } });
  return (
    <>
      <NumberField
        label="Along the edge"
        value={Number((baseline.share * 100).toFixed(2))}
        unit="%"
        min={0}
        max={100}
        stepBy={0.5}
        onChange={(percent) => put({ share: percent / 100 })}
      />
      <MmField
        label="Above it"
        valueMm={Number((baseline.gapPx / scale).toFixed(3))}
        min={-500}
        max={500}
        onChange={(mm) => put({ gapPx: mm * scale })}
      />
    </>
  );
}
