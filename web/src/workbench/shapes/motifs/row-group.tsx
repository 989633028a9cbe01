// A row of the motif in hand: none, a line, a grid, or along an arc.
import { MAX_PRINT_MM, type MotifEntry, ROW_LIMITS } from "@plain-palette/core/recipe";
import { Choice } from "../../../parts/choice.tsx";
import { CheckField, MmField, NumberField } from "../../../parts/fields.tsx";
import { Group } from "../../panel.tsx";
import { stepsWithGap } from "./motif-grips.ts";

type Row = MotifEntry["row"];
type RowKind = "none" | "line" | "grid" | "arc";

interface Props {
  readonly entry: MotifEntry;
  /** Client's pixels to a millimetre. */
  readonly perMm: number;
  set(row: Row): void;
}

/** A row as it is begun: how many, how far apart, and on what arc. */
const FIRST = { count: 3, gapMm: 5, radiusShare: 1.5, spanDeg: 120 } as const;

export function RowGroup({ entry, perMm, set }: Props) {
  const { row } = entry;
  const kind: RowKind = !row ? "none" : row.kind === "arc" ? "arc" : row.rows > 1 ? "grid" : "line";
  return (
    <Group title="Row">
      <div className="pb-1">
        <Choice
          label="Repeated"
          value={kind}
          options={[
            { value: "none", text: "Once" },
            { value: "line", text: "In a line" },
            { value: "grid", text: "In a grid" },
            { value: "arc", text: "On an arc" },
          ]}
          isSmall
          onChange={(next: RowKind) => set(firstRow(next, entry, perMm))}
        />
      </div>
      {row?.kind === "grid" && <GridFields row={row} entry={entry} perMm={perMm} set={set} />}
      {row?.kind === "arc" && <ArcFields row={row} perMm={perMm} set={set} />}
    </Group>
  );
}

function firstRow(kind: RowKind, entry: MotifEntry, perMm: number): Row {
  if (kind === "none") return null;
  if (kind === "arc") {
    const radius = (entry.places[0]?.widthPx ?? 0) * FIRST.radiusShare;
    return { kind: "arc", count: FIRST.count, radius, spanDeg: FIRST.spanDeg, angleDeg: 0, isTurned: true };
  }
  const steps = stepsWithGap(entry, FIRST.gapMm, perMm);
  const rows = kind === "grid" ? 2 : 1;
  return { kind: "grid", columns: FIRST.count, rows, ...steps, angleDeg: 0, isStaggered: false };
}

const fine = (mm: number) => Number(mm.toFixed(2));

interface GridProps extends Props {
  readonly row: Extract<NonNullable<Row>, { kind: "grid" }>;
}

function GridFields({ row, entry, perMm, set }: GridProps) {
  const touching = stepsWithGap(entry, 0, perMm);
  const gap = (step: "stepX" | "stepY") => (row[step] - touching[step]) / perMm;
  const many = (label: string, key: "columns" | "rows") => (
    <NumberField
      label={label}
      value={row[key]}
      unit=""
      min={1}
      max={Math.min(ROW_LIMITS.count, Math.floor(ROW_LIMITS.all / row[key === "columns" ? "rows" : "columns"]))}
      stepBy={1}
      onChange={(value) => set({ ...row, [key]: Math.round(value) })}
    />
  );
  const gapField = (label: string, step: "stepX" | "stepY") => (
    <MmField
      label={label}
      valueMm={fine(gap(step))}
      min={-MAX_PRINT_MM}
      max={MAX_PRINT_MM}
      onChange={(mm) => set({ ...row, [step]: touching[step] + mm * perMm })}
    />
  );
  return (
    <>
      {many(row.rows > 1 ? "Beside each other" : "How many", "columns")}
      {gapField("Gap between them", "stepX")}
      {many("Rows", "rows")}
      {row.rows > 1 && gapField("Gap between rows", "stepY")}
      {row.rows > 1 && (
        <CheckField
          label="Every second row half a step on"
          isOn={row.isStaggered}
          onChange={(isStaggered) => set({ ...row, isStaggered })}
        />
      )}
      <NumberField
        label="The row's angle"
        value={row.angleDeg}
        unit="°"
        min={-360}
        max={360}
        stepBy={1}
        onChange={(angleDeg) => set({ ...row, angleDeg })}
      />
    </>
  );
}

interface ArcProps {
  readonly row: Extract<NonNullable<Row>, { kind: "arc" }>;
  readonly perMm: number;
  set(row: Row): void;
}

function ArcFields({ row, perMm, set }: ArcProps) {
  return (
    <>
      <NumberField
        label="How many"
        value={row.count}
        unit=""
        min={1}
        max={ROW_LIMITS.count}
        stepBy={1}
        onChange={(count) => set({ ...row, count: Math.round(count) })}
      />
      <MmField
        label="Radius"
        hint="Under 0: hanging, as a garland"
        valueMm={fine(row.radius / perMm)}
        min={-MAX_PRINT_MM}
        max={MAX_PRINT_MM}
        onChange={(mm) => set({ ...row, radius: mm * perMm })}
      />
      <NumberField
        label="Over an angle of"
        hint="360: all the way round"
        value={row.spanDeg}
        unit="°"
        min={-360}
        max={360}
        stepBy={5}
        onChange={(spanDeg) => set({ ...row, spanDeg })}
      />
      <NumberField
        label="The arc's own angle"
        value={row.angleDeg}
        unit="°"
        min={-360}
        max={360}
        stepBy={5}
        onChange={(angleDeg) => set({ ...row, angleDeg })}
      />
      <CheckField
        label="Each stands on the arc"
        isOn={row.isTurned}
        onChange={(isTurned) => set({ ...row, isTurned })}
      />
    </>
  );
}
