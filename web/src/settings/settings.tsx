// Shop settings: what a colour costs, how near is near enough, what still prints and cuts, how film is pressed and stitches
// are sewn.
import { FILM_FACTS, type ShopSettings, type ShopSettingsPatch } from "@plain-palette/core/shelf";
import type { ReactNode } from "react";
import { MmField, NumberField, Row } from "../parts/fields.tsx";
import { InPlaceText } from "../parts/in-place.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { changeSettings, useSettings } from "../shop/use-shop.ts";

export function Settings() {
  const settings = useSettings();
  const { data } = settings;
  return (
    <div className="min-h-full">
      <ShopHead title="Shop settings" />
      <main id="work" tabIndex={-1} className="mx-auto grid max-w-md gap-5 px-8 narrow:px-4 py-5">
        <QueryProblem query={settings} />
        {settings.isPending && <p role="status">Fetching the settings ...</p>}
        {data && <Fields settings={data} set={(part) => changeSettings(data, part)} />}
      </main>
    </div>
  );
}

interface FieldsProps {
  readonly settings: ShopSettings;
  set(part: ShopSettingsPatch): void;
}

/** Amounts and differences, in the groups they are shown in. */
const NUMBERS = {
  costs: [
    { key: "perScreen", label: "A screen", hint: "Burning it and setting it up", max: 100_000, stepBy: 0.5 },
    {
      key: "perColourPiece",
      label: "A colour on a piece",
      hint: "One more pass of one piece",
      max: 10_000,
      stepBy: 0.05,
    },
  ],
  matching: [
    { key: "sameDifference", label: "Same colour up to ΔE", hint: "Taken without asking", max: 50, stepBy: 0.5 },
    { key: "nearDifference", label: "Close enough up to ΔE", hint: "Worth asking the client", max: 50, stepBy: 0.5 },
  ],
} as const;
const LENGTHS = {
  printing: [
    { key: "thinnestLineMm", label: "Thinnest line", hint: "Of ink", max: 10 },
    { key: "thinnestGapMm", label: "Thinnest gap", hint: "Open garment between inks", max: 10 },
  ],
  cutting: [
    { key: "thinnestStripMm", label: "Thinnest strip", hint: "Of film that cuts and holds", max: 10 },
    { key: "narrowestFilmGapMm", label: "Narrowest gap", hint: "In a layer, that is weeded out", max: 10 },
    {
      key: "smallestIslandMm",
      label: "Smallest island",
      hint: "Across; smaller ones come off with the waste",
      max: 20,
    },
  ],
} as const;
/** Of films that have no numbers of their own on the shelf. */
const FILM_NUMBERS = [
  {
    key: "rollWidthMm",
    label: "Roll width",
    unit: "mm",
    hint: "Of films that say nothing else on the shelf",
    stepBy: 1,
  },
  { key: "pricePerMetre", label: "A metre of film", unit: "", hint: null, stepBy: 0.1 },
  { key: "celsius", label: "Press", unit: "°C", hint: null, stepBy: 5 },
  { key: "tackS", label: "Tack a layer", unit: "s", hint: null, stepBy: 1 },
  { key: "finalS", label: "Press the whole", unit: "s", hint: "At the end", stepBy: 1 },
] as const;

/** Of the embroidery machine. */
const STITCH_NUMBERS = [
  { key: "stitchesPerMinute", label: "Speed", unit: "a min", hint: "Stitches", min: 50, max: 3000, stepBy: 50 },
  { key: "changeS", label: "A change of thread", unit: "s", hint: null, min: 0, max: 600, stepBy: 1 },
  { key: "trimS", label: "A trim", unit: "s", hint: null, min: 0, max: 600, stepBy: 1 },
  { key: "perThousand", label: "A thousand stitches", unit: "", hint: "On one piece", min: 0, max: 1000, stepBy: 0.1 },
  {
    key: "mostPerMm2",
    label: "Stitches to a mm² at most",
    unit: "",
    hint: "From there on cloth is cut",
    min: 0.5,
    max: 20,
    stepBy: 0.5,
  },
  { key: "mostLayers", label: "Layers at most", unit: "", hint: "Thread on thread", min: 1, max: 10, stepBy: 1 },
] as const;

/** Of stones. */
const STONE_LENGTHS = [
  { key: "stoneGapMm", label: "Gap between stones", hint: "From edge to edge", min: 0.05, max: 0.8 },
  { key: "leastStoneGapMm", label: "Least gap", hint: "Never less, whatever a job says", min: 0.05, max: 0.8 },
] as const;

function Fields({ settings, set }: FieldsProps) {
  const numbers = (group: keyof typeof NUMBERS) =>
    NUMBERS[group].map(({ key, ...field }) => (
      <NumberField key={key} {...field} value={settings[key]} unit="" min={0} onChange={(v) => set({ [key]: v })} />
    ));
  const lengths = (group: keyof typeof LENGTHS) =>
    LENGTHS[group].map(({ key, ...field }) => (
      <MmField key={key} {...field} valueMm={settings[key]} min={0} onChange={(v) => set({ [key]: v })} />
    ));
  return (
    <>
      <Sheet title="The shop">
        <Row label="Its name, as clients read it" isWide>
          <InPlaceText
            label="Its name, as clients read it"
            text={settings.shopName}
            className="mx-0! border-rule! bg-card! px-2! py-1!"
            onCommit={(shopName) => shopName.trim() && set({ shopName })}
          />
        </Row>
      </Sheet>
      <Sheet title="What a colour costs">
        <Row label="Currency">
          <InPlaceText
            label="Currency"
            text={settings.currency}
            className="mx-0! border-rule! bg-card! px-2! py-1! text-right"
            onCommit={(currency) => currency.trim() && set({ currency })}
          />
        </Row>
        {numbers("costs")}
      </Sheet>
      <Sheet title="Matching the shelf">{numbers("matching")}</Sheet>
      <Sheet title="What still prints">{lengths("printing")}</Sheet>
      <Sheet title="What still cuts and weeds">{lengths("cutting")}</Sheet>
      <Sheet title="Transfer film">
        {FILM_NUMBERS.map(({ key, ...field }) => (
          <NumberField
            key={key}
            {...field}
            {...FILM_FACTS[key]}
            value={settings[key]}
            onChange={(v) => set({ [key]: v })}
          />
        ))}
      </Sheet>
      <Sheet title="Stitches">
        <Row label="Hoops, mm" isWide>
          <InPlaceText
            label="Hoops, mm"
            text={settings.hoops}
            className="mx-0! border-rule! bg-card! px-2! py-1! text-right"
            onCommit={(hoops) => hoops.trim() && set({ hoops })}
          />
        </Row>
        {STITCH_NUMBERS.map(({ key, ...field }) => (
          <NumberField key={key} {...field} value={settings[key]} onChange={(v) => set({ [key]: v })} />
        ))}
      </Sheet>
      <Sheet title="Stones">
        {STONE_LENGTHS.map(({ key, ...field }) => (
          <MmField key={key} {...field} valueMm={settings[key]} onChange={(v) => set({ [key]: v })} />
        ))}
        <NumberField
          label="Lost on the way"
          value={settings.stoneLossPercent}
          {...{ unit: "%", min: 0, max: 100, stepBy: 1 }}
          onChange={(stoneLossPercent) => set({ stoneLossPercent })}
        />
        <Row label="A hundred, by size" isWide>
          <InPlaceText
            label="A hundred, by size"
            text={settings.stonePrices}
            className="mx-0! border-rule! bg-card! px-2! py-1! text-right"
            onCommit={(stonePrices) => set({ stonePrices })}
          />
        </Row>
      </Sheet>
    </>
  );
}

function Sheet({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="border border-rule bg-sheet px-4 py-3">
      <h2 className="pb-1 font-semibold">{title}</h2>
      {children}
    </section>
  );
}
