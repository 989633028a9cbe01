// Size: how wide or high it prints, where on the garment, and the client's file.
import { formatLength, type Length, toMm } from "@plain-palette/core/geometry";
import {
  effectiveDpi,
  MAX_PRINT_MM,
  MIN_PRINT_MM,
  type Placement,
  printWidthMm,
  processesIn,
  scaleRecipe,
} from "@plain-palette/core/recipe";
import { GOOD_DPI, LOW_DPI } from "@plain-palette/core/trade";
import { useId, useState } from "react";
import { garmentsOf } from "../../garment/garments.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { LengthField, Row } from "../../parts/fields.tsx";
import { SelectField } from "../../parts/select-field.tsx";
import { usePlacements, useShop } from "../../shop/use-shop.ts";
import { Fact, Group } from "../panel.tsx";
import { ClientFile } from "./client-file.tsx";
import { PlacementsDialog } from "./placements.tsx";
import type { SectionProps } from "./section-props.ts";

/** Plain verdicts on effective resolution, dpi. */
function verdict(dpi: number): string {
  if (dpi >= GOOD_DPI) return "good";
  if (dpi >= LOW_DPI) return "enough for shapes, soft for fine lettering";
  return "low: fine detail will be guessed";
}

export function SizeSection({ computed }: SectionProps) {
  const { artwork } = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const edit = useJob((state) => state.edit);
  const size = computed.prepared?.frame ?? artwork;
  const { width, height, placement, garment } = recipe.artwork;
  const widthMm = printWidthMm(recipe, size);
  const heightMm = (widthMm * size.height) / size.width;
  const dpi = effectiveDpi(size.width, widthMm);
  const set = (part: Partial<typeof recipe.artwork>) => edit((r) => ({ ...r, artwork: { ...r.artwork, ...part } }));
  const unit = (height ?? width).unit;
  const side = height ? "height" : "width";
  const other = height ? `${formatLength(widthMm, unit)} wide` : `${formatLength(heightMm, unit)} high`;
  return (
    <>
      <Group title="On the garment">
        <PlacementField
          onChoose={(next) =>
            set(
              next === null
                ? { placement: null }
                : { placement: next, height: null, width: lengthIn(next.widthMm, width.unit) },
            )
          }
        />
        <div className="flex items-center justify-between py-1">
          <span>Size by</span>
          <Choice
            label="Size by"
            isSmall
            value={side}
            options={[
              { value: "width", text: "Width" },
              { value: "height", text: "Height" },
            ]}
            onChange={(next) =>
              set(
                next === "height"
                  ? { height: lengthIn(heightMm, unit) }
                  : { height: null, width: lengthIn(widthMm, unit) },
              )
            }
          />
        </div>
        <LengthField
          label={height ? "Print height" : "Print width"}
          value={height ?? width}
          min={MIN_PRINT_MM}
          max={MAX_PRINT_MM}
          hint={`${other}. Type any unit: 10.5in, 267 mm, 4"`}
          onChange={(next) => set(height ? { height: next } : { width: next })}
        />
        <TooBig widthMm={widthMm} heightMm={heightMm} />
        <GarmentField value={garment} onChange={(hex) => set({ garment: hex })} />
        <dl className="mt-2">
          {placement && (
            <Fact label="Printable area">
              {formatLength(placement.areaWidthMm, unit)} × {formatLength(placement.areaHeightMm, unit)}
            </Fact>
          )}
          <Fact label="Effective resolution">
            <b className={dpi < LOW_DPI ? "text-wrong" : ""}>{Math.round(dpi)} dpi</b>
          </Fact>
        </dl>
        <p className="text-xs text-soft">At this size: {verdict(dpi)}.</p>
        {artwork.content !== "pixels" && dpi < GOOD_DPI && (
          <Redraw pixels={Math.ceil((widthMm / 25.4) * GOOD_DPI * (artwork.width / size.width))} />
        )}
      </Group>
      <ClientFile computed={computed} />
    </>
  );
}

/** A length of the trade's usual fineness in a unit. */
function lengthIn(mm: number, unit: Length["unit"]): Length {
  const perUnit = toMm({ value: 1, unit });
  return { value: Number((mm / perUnit).toFixed(unit === "in" ? 3 : 2)), unit };
}

function TooBig({ widthMm, heightMm }: { widthMm: number; heightMm: number }) {
  const recipe = useJob((state) => state.recipe);
  const { placement } = recipe.artwork;
  const isOver = (room: { width: number; height: number }) =>
    widthMm > room.width + 0.05 || heightMm > room.height + 0.05;
  const size = `${widthMm.toFixed(0)} × ${heightMm.toFixed(0)} mm`;
  return (
    <>
      {placement && isOver({ width: placement.areaWidthMm, height: placement.areaHeightMm }) && (
        <p role="alert" className="text-xs text-wrong">
          {size} is too big for {placement.name}: its printable area is {placement.areaWidthMm.toFixed(0)} ×{" "}
          {placement.areaHeightMm.toFixed(0)} mm.
        </p>
      )}
      {processesIn(recipe).map((process) => {
        const warning = process.warnOfSize({ width: widthMm, height: heightMm }, recipe);
        return (
          warning && (
            <p key={process.id} role="alert" className="text-xs text-wrong">
              {warning}
            </p>
          )
        );
      })}
    </>
  );
}

/** Shapes are drawn as pixels when they come in: for a larger print they can be drawn finer. */
function Redraw({ pixels }: { pixels: number }) {
  const edit = useJob((state) => state.edit);
  const { artwork } = useJob((state) => state.job);
  const width = Math.min(pixels, Math.floor(Math.sqrt((60e6 * artwork.width) / artwork.height)), 20_000);
  return (
    <Button
      className="mt-1"
      onClick={() =>
        edit((r) => {
          const before = r.artwork.drawnWidthPx ?? artwork.width;
          const grown = scaleRecipe(r, width / before);
          return { ...grown, artwork: { ...grown.artwork, drawnWidthPx: width } };
        })
      }
    >
      Draw its shapes at {GOOD_DPI} dpi
    </Button>
  );
}

function PlacementField({ onChoose }: { onChoose(placement: Placement | null): void }) {
  const chosen = useJob((state) => state.recipe.artwork.placement);
  const { data = [] } = usePlacements();
  const [isOpen, setOpen] = useState(false);
  const listed = data.map(({ name }) => name);
  const names = chosen === null || listed.includes(chosen.name) ? listed : [chosen.name, ...listed];
  return (
    <>
      <SelectField
        label="Placement"
        isWide
        value={chosen?.name ?? ""}
        options={[{ value: "", text: "None yet" }, ...names.map((name) => ({ value: name, text: name }))]}
        onChange={(name) => {
          const one = data.find((placement) => placement.name === name);
          onChoose(one ? placementOf(one) : null);
        }}
      />
      <button type="button" className="text-xs underline" onClick={() => setOpen(true)}>
        Change the shop's placements
      </button>
      <PlacementsDialog isOpen={isOpen} onClose={() => setOpen(false)} placements={data} />
    </>
  );
}

function placementOf({ name, widthMm, areaWidthMm, areaHeightMm }: Placement): Placement {
  return { name, widthMm, areaWidthMm, areaHeightMm };
}

/** The garment by the shop's code or name for it, by its colour's digits, or by eye. */
function GarmentField({ value, onChange }: { value: string; onChange(hex: string): void }) {
  const id = useId();
  const { shelf } = useShop();
  const garments = garmentsOf(shelf);
  const worn = garments.find(({ hex }) => hex === value);
  const [fault, setFault] = useState<string | null>(null);
  const take = (typed: string) => {
    const text = typed.trim().toLowerCase();
    const found = garments.find(({ label, stock }) =>
      [label, stock.code, stock.name].some((name) => name.toLowerCase() === text),
    );
    const hex = found?.hex ?? (/^#?[0-9a-f]{6}$/.test(text) ? `#${text.replace("#", "")}` : null);
    setFault(hex ? null : `The shelf has no garment "${typed}"; a code, a name or #rrggbb`);
    if (hex) onChange(hex);
  };
  return (
    <>
      <div className="flex items-center gap-3 py-1.5">
        <label htmlFor={`${id}-code`}>Garment</label>
        <input
          key={worn?.label ?? value}
          id={`${id}-code`}
          list={`${id}-list`}
          defaultValue={worn?.label ?? value}
          className={`min-w-0 flex-1 rounded-[3px] border bg-card px-2 py-1 ${fault ? "border-wrong" : "border-rule"}`}
          aria-invalid={fault !== null}
          onFocus={(event) => event.target.select()}
          onChange={(event) => {
            // A choice from the list counts at once; what is typed, when it is done.
            if (garments.some(({ label }) => label === event.target.value)) take(event.target.value);
          }}
          onBlur={(event) => event.target.value !== (worn?.label ?? value) && take(event.target.value)}
          onKeyDown={(event) => event.key === "Enter" && take(event.currentTarget.value)}
        />
        <datalist id={`${id}-list`}>
          {garments.map(({ label, stock }) => (
            <option key={stock.id} value={label} />
          ))}
        </datalist>
      </div>
      {fault && <p className="text-xs text-wrong">{fault}</p>}
      <GarmentColour id={id} value={value} onChange={onChange} />
    </>
  );
}

function GarmentColour({ id, value, onChange }: { id: string; value: string; onChange(hex: string): void }) {
  return (
    <Row label="Garment colour" htmlFor={id}>
      <span className="flex items-center gap-2 rounded-[3px] border border-edge bg-card px-2 py-0.5">
        <input
          id={id}
          type="color"
          value={value}
          onChange={(event) => onChange(event.target.value)}
          className="h-6 w-8 cursor-pointer border-0 bg-transparent p-0"
        />
        <span className="flex-1 text-right">{value}</span>
      </span>
    </Row>
  );
}
