// Shop settings: what a colour costs, how near is near enough, how thin still prints.
import type { ShopSettings, ShopSettingsPatch } from "@plain-palette/core/shelf";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { api } from "../api/client.ts";
import { MmField, NumberField, Row } from "../parts/fields.tsx";
import { InPlaceText } from "../parts/in-place.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { useSettingsWriter } from "./use-settings-writer.ts";

export function Settings() {
  const settings = useQuery({ queryKey: ["settings"], queryFn: api.readSettings });
  const { problem, set, forget } = useSettingsWriter();
  useEffect(() => {
    document.title = "Shop settings · Plain Palette";
  }, []);
  return (
    <div className="min-h-full">
      <ShopHead title="Shop settings" />
      <main className="mx-auto grid max-w-md gap-5 px-8 py-5">
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        {settings.isError && <ProblemNote problem={problemOf(settings.error)} />}
        {settings.isPending && <p role="status">Fetching the settings ...</p>}
        {settings.data && <Fields settings={settings.data} set={set} />}
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
const LENGTHS = [
  { key: "thinnestLineMm", label: "Thinnest line", hint: "Of ink" },
  { key: "thinnestGapMm", label: "Thinnest gap", hint: "Open garment between inks" },
] as const;

function Fields({ settings, set }: FieldsProps) {
  const numbers = (group: keyof typeof NUMBERS) =>
    NUMBERS[group].map(({ key, ...field }) => (
      <NumberField key={key} {...field} value={settings[key]} unit="" min={0} onChange={(v) => set({ [key]: v })} />
    ));
  return (
    <>
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
      <Sheet title="What still prints">
        {LENGTHS.map(({ key, ...field }) => (
          <MmField key={key} {...field} valueMm={settings[key]} min={0} max={10} onChange={(v) => set({ [key]: v })} />
        ))}
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
