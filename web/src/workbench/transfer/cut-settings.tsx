// Cut files: formats, how film lies on the cutter, the job's pieces on their rolls and what that takes.
import { type FilmSheet, TRANSFER_LIMITS, type TransferSettings, transfer } from "@plain-palette/core/transfer";
import { Link } from "react-router";
import { useJob } from "../../job/use-job.ts";
import { Choice } from "../../parts/choice.tsx";
import { count } from "../../parts/count.ts";
import { CheckField, MmField, NumberField } from "../../parts/fields.tsx";
import { useShop } from "../../shop/use-shop.ts";
import { CutFormatFields } from "../cut-format-fields.tsx";
import { Fact, Group } from "../panel.tsx";
import { setColours } from "../set-colours.ts";

interface Props {
  readonly sheets: readonly FilmSheet[] | null;
  /** The roll on the table. */
  readonly shown: string | null;
  onShow(spotId: string): void;
}

export function CutSettings({ sheets, shown, onShow }: Props) {
  const settings = useJob((state) => transfer.settingsIn(state.recipe));
  const jobId = useJob((state) => state.job.id);
  const pieces = useJob((state) => state.recipe.colours.pieces);
  const edit = useJob((state) => state.edit);
  const set = (part: Partial<TransferSettings>) => edit((r) => transfer.withSettings(r, part));
  const { formats, isMirrored, sheets: wanted, printed } = settings;
  const setSheets = (part: Partial<typeof wanted>) => set({ sheets: { ...wanted, ...part } });
  return (
    <>
      <Group title="Cut files">
        <CutFormatFields formats={formats} onChange={(next) => set({ formats: next })} />
        <p className="text-xs text-soft">
          The{" "}
          <Link className="underline" to={`/practice?job=${jobId}`}>
            practice bench
          </Link>{" "}
          cuts the plots that were made last and presses what it weeded.
        </p>
        {!printed.isWanted && (
          <div className="py-1">
            <Choice
              label="Reading"
              value={isMirrored ? "mirrored" : "right"}
              options={[
                { value: "mirrored", text: "Mirrored", title: "Cut from the back, as film lies on the cutter" },
                { value: "right", text: "Right-reading" },
              ]}
              onChange={(value) => set({ isMirrored: value === "mirrored" })}
            />
          </div>
        )}
      </Group>
      {!printed.isWanted && (
        <Group title="Rolls">
          <CheckField
            label="All pieces on their rolls"
            hint="Ready to cut, one file for each layer"
            isOn={wanted.isMade}
            onChange={(isMade) => setSheets({ isMade })}
          />
          {wanted.isMade && (
            <>
              <NumberField
                label="Pieces"
                value={pieces}
                unit=""
                min={1}
                max={1_000_000}
                stepBy={1}
                onChange={(next) => edit((r) => setColours(r, { pieces: Math.round(next) }))}
              />
              <MmField
                label="Between pieces"
                valueMm={wanted.gapMm}
                {...TRANSFER_LIMITS.gapOnRollMm}
                onChange={(gapMm) => setSheets({ gapMm })}
              />
              <CheckField
                label="Weed box round each piece"
                hint="Notches of its edge count its place in the press order"
                isOn={wanted.hasBox}
                onChange={(hasBox) => setSheets({ hasBox })}
              />
              {wanted.hasBox && (
                <MmField
                  label="Box margin"
                  valueMm={wanted.boxMm}
                  {...TRANSFER_LIMITS.boxMm}
                  onChange={(boxMm) => setSheets({ boxMm })}
                />
              )}
              <MmField
                label="Weed lines every"
                valueMm={wanted.weedLinesMm}
                {...TRANSFER_LIMITS.weedLinesMm}
                hint="They part the waste and keep clear of film; 0 for none"
                onChange={(weedLinesMm) => setSheets({ weedLinesMm })}
              />
              <CheckField
                label="Marks to lay layers by"
                hint="The same three crosses in every layer, peeled off after pressing; each piece is as large as the design then"
                isOn={wanted.hasMarks}
                onChange={(hasMarks) => setSheets({ hasMarks })}
              />
              <CheckField
                label="Names, for a cutter with a pen"
                isOn={wanted.hasNames}
                onChange={(hasNames) => setSheets({ hasNames })}
              />
              <RollList sheets={sheets} shown={shown} onShow={onShow} />
            </>
          )}
        </Group>
      )}
    </>
  );
}

/** What of the layers is made, and of what roll; the one that is pressed lies on the table. */
function RollList({ sheets, shown, onShow }: Props) {
  const { settings } = useShop();
  const { decided, sheets: wanted } = useJob((state) => transfer.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  if (!sheets) return <p role="status">Laying pieces on rolls ...</p>;
  // A film without a price says nothing of what it costs.
  const money = (amount: number) => (amount > 0 ? `${settings.currency} ${amount.toFixed(2)}` : "no price");
  const leaveOut = (id: string, isLeftOut: boolean) =>
    edit((r) => transfer.withSettings(r, { decided: { ...decided, [id]: { ...decided[id], isLeftOut } } }));
  const made = sheets.filter(({ spotId }) => decided[spotId]?.isLeftOut !== true);
  const cost = made.reduce((sum, sheet) => sum + sheet.cost, 0);
  const minutes = made.reduce((sum, { cutS }) => sum + cutS, 0) / 60;
  return (
    <>
      <ol aria-label="Rolls" className="mt-1">
        {sheets.map((sheet) => (
          <li key={sheet.spotId} className="flex items-start gap-2 border-t border-rule py-1">
            <input
              type="checkbox"
              aria-label={`Make ${sheet.name}`}
              checked={made.includes(sheet)}
              onChange={(event) => leaveOut(sheet.spotId, !event.target.checked)}
            />
            <button
              type="button"
              aria-pressed={sheet.spotId === shown}
              disabled={!wanted.isMade}
              onClick={() => onShow(sheet.spotId)}
              className="grid min-w-0 flex-1 grid-cols-[1.25rem_0.75rem_1fr_auto] items-center gap-x-2 px-1 text-left enabled:hover:bg-card aria-pressed:bg-card aria-pressed:font-semibold"
            >
              <span className="text-right text-soft">{sheet.order}</span>
              <Swatch sheet={sheet} />
              <span className="truncate">{sheet.stock?.name ?? sheet.name}</span>
              {wanted.isMade && (
                <>
                  <span>{sheet.nesting ? `${(sheet.nesting.lengthMm / 1000).toFixed(2)} m` : "too wide"}</span>
                  <span className="col-span-2 col-start-3 text-xs font-normal text-soft">
                    {sheet.nesting
                      ? `roll ${sheet.roll.widthMm} mm, ${money(sheet.cost)}, ${Math.round(sheet.wasteShare * 100)} % waste, ${Math.ceil(sheet.cutS / 60)} min`
                      : `widest print for a roll of ${sheet.roll.widthMm} mm: ${(Math.floor(sheet.widestPrintMm * 10) / 10).toFixed(1)} mm`}
                  </span>
                </>
              )}
            </button>
          </li>
        ))}
      </ol>
      {wanted.isMade && (
        <dl className="border-t border-rule pt-1">
          <Fact label="Film for all">{money(cost)}</Fact>
          <Fact label="Cutting">{count(Math.ceil(minutes), "minute")}</Fact>
        </dl>
      )}
    </>
  );
}

function Swatch({ sheet: { stock, rgb } }: { sheet: FilmSheet }) {
  return (
    <span className="size-3 border border-soft/50" style={{ background: stock?.hex ?? `rgb(${rgb.join(" ")})` }} />
  );
}
