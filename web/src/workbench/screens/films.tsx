// Films: the sheet, how they read, what is on them, and which one lies on the table.
import { type FilmSet, screens } from "@plain-palette/core/screens";
import { useJob } from "../../job/use-job.ts";
import { Choice } from "../../parts/choice.tsx";
import { CheckField } from "../../parts/fields.tsx";
import { Group } from "../panel.tsx";

/** Sheets of film that shops buy, mm (ISO 216 and common roll cuts). Null: as large as art and marks need. */
const SHEETS = [
  { value: "fit", text: "Fitting", size: null },
  { value: "a4", text: "A4", size: { width: 210, height: 297 } },
  { value: "a3", text: "A3", size: { width: 297, height: 420 } },
  { value: "13x19", text: "13 × 19 in", size: { width: 330.2, height: 482.6 } },
] as const;

interface Props {
  readonly films: FilmSet | null;
  readonly shown: number;
  onShow(index: number): void;
}

export function FilmSettings({ films, shown, onShow }: Props) {
  const wanted = useJob((state) => screens.settingsIn(state.recipe).films);
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<typeof wanted>) =>
    edit((r) => screens.withSettings(r, { films: { ...screens.settingsIn(r).films, ...part } }));
  const sheet = SHEETS.find(
    ({ size }) => size?.width === wanted.sheetMm?.width && size?.height === wanted.sheetMm?.height,
  );
  return (
    <>
      <Group title="Sheet">
        <Choice
          label="Sheet"
          value={sheet?.value ?? "fit"}
          options={SHEETS}
          onChange={(value) => set({ sheetMm: SHEETS.find((s) => s.value === value)?.size ?? null })}
        />
        {films && (
          <p className="mt-1 text-xs text-soft">
            {films.sheet.width.toFixed(1)} × {films.sheet.height.toFixed(1)} mm.
            {films.hasGrown && " The sheet grew so that nothing of the art or its marks is cut off."}
          </p>
        )}
      </Group>
      <Group title="Film">
        <div className="py-1">
          <Choice
            label="Reading"
            value={wanted.isMirrored ? "mirrored" : "right"}
            options={[
              { value: "right", text: "Right-reading" },
              { value: "mirrored", text: "Mirrored" },
            ]}
            onChange={(value) => set({ isMirrored: value === "mirrored" })}
          />
        </div>
        <CheckField
          label="Registration targets and centre marks"
          isOn={wanted.hasMarks}
          onChange={(hasMarks) => set({ hasMarks })}
        />
        <CheckField label="Labels" isOn={wanted.hasLabels} onChange={(hasLabels) => set({ hasLabels })} />
      </Group>
      <Group title="Films">
        {!films && <p role="status">Separating ...</p>}
        {films && films.films.length === 0 && <p>No plates: every colour is dropped or the garment's.</p>}
        <ol aria-label="Films">
          {films?.films.map(({ plate }, i) => (
            <li key={plate.id}>
              <button
                type="button"
                aria-pressed={i === shown}
                onClick={() => onShow(i)}
                className="flex w-full items-center gap-2 border-t border-rule px-1 py-1 text-left hover:bg-card aria-pressed:bg-card aria-pressed:font-semibold"
              >
                <span className="w-5 text-right text-soft">{plate.order}</span>
                <span className="size-3 border border-soft/50" style={{ background: `rgb(${plate.rgb.join(" ")})` }} />
                {plate.name}
              </button>
            </li>
          ))}
        </ol>
      </Group>
    </>
  );
}
