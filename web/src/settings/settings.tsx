// Shop settings: what a colour costs, how near is near enough, how thin still prints.
import type { VersionedSettings } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { api } from "../api/client.ts";
import { MmField, NumberField, Row } from "../parts/fields.tsx";
import { InPlaceText } from "../parts/in-place.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { useWrites } from "../parts/use-writes.ts";

export function Settings() {
  const settings = useQuery({ queryKey: ["settings"], queryFn: api.readSettings });
  const { problem, write, forget } = useWrites("settings");
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
        {settings.data && (
          <Fields
            settings={settings.data}
            set={(part) => void write(() => api.changeSettings({ ...settings.data, ...part }))}
          />
        )}
      </main>
    </div>
  );
}

interface FieldsProps {
  readonly settings: VersionedSettings;
  set(part: Partial<VersionedSettings>): void;
}

function Fields({ settings, set }: FieldsProps) {
  return (
    <>
      <Sheet title="What a colour costs">
        <Row label="Currency">
          <InPlaceText
            label="Currency"
            text={settings.currency}
            className="border-rule! bg-card! text-right"
            onCommit={(currency) => currency.trim() && set({ currency })}
          />
        </Row>
        <NumberField
          label="A screen"
          hint="Burning it and setting it up"
          value={settings.perScreen}
          unit=""
          min={0}
          max={100_000}
          stepBy={0.5}
          onChange={(perScreen) => set({ perScreen })}
        />
        <NumberField
          label="A colour on a piece"
          hint="One more pass of one piece"
          value={settings.perColourPiece}
          unit=""
          min={0}
          max={10_000}
          stepBy={0.05}
          onChange={(perColourPiece) => set({ perColourPiece })}
        />
      </Sheet>
      <Sheet title="Matching the shelf">
        <NumberField
          label="Same colour up to ΔE"
          hint="Taken without asking"
          value={settings.sameDifference}
          unit=""
          min={0}
          max={50}
          stepBy={0.5}
          onChange={(sameDifference) => set({ sameDifference })}
        />
        <NumberField
          label="Close enough up to ΔE"
          hint="Worth asking the client"
          value={settings.nearDifference}
          unit=""
          min={0}
          max={50}
          stepBy={0.5}
          onChange={(nearDifference) => set({ nearDifference })}
        />
      </Sheet>
      <Sheet title="What still prints">
        <MmField
          label="Thinnest line"
          valueMm={settings.thinnestLineMm}
          min={0}
          max={10}
          onChange={(thinnestLineMm) => set({ thinnestLineMm })}
        />
        <MmField
          label="Thinnest gap"
          hint="Open garment between inks"
          valueMm={settings.thinnestGapMm}
          min={0}
          max={10}
          onChange={(thinnestGapMm) => set({ thinnestGapMm })}
        />
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
