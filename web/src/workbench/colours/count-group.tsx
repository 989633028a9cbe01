// How many colours: the number, how sure it is, the ladder that it stands on, and what a colour costs.
import { formatHex, parseHex } from "@plain-palette/core/colour";
import type { Spot } from "@plain-palette/core/reduce";
import { priceColours } from "@plain-palette/core/shelf";
import { lazy, Suspense, useMemo } from "react";
import type { ReducedView } from "../../compute/messages.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { NumberField } from "../../parts/fields.tsx";
import { useShop } from "../../shop/use-shop.ts";
import { Group } from "../panel.tsx";
import { setColours } from "../set-colours.ts";
import type { LadderStep } from "./ladder-chart.tsx";

const LadderChart = lazy(() => import("./ladder-chart.tsx"));

/** Rungs shown: above 16 colours it is not a spot-colour job (common practice, no source). */
const MOST_STEPS = 16;

export function CountGroup({ reduced }: { reduced: ReducedView }) {
  const { count, pieces } = useJob((state) => state.recipe.colours);
  const edit = useJob((state) => state.edit);
  const { settings } = useShop();
  const { spots, rungs, proposal } = reduced;
  const inPicture = spots.filter(({ members }) => members.length > 0);
  const setCount = (next: number | null) => edit((r) => setColours(r, { count: next }));
  const nextDown = rungs.find((rung) => rung.countAfter === inPicture.length - 1);
  const nameOf = (id: string) => nameSpot(spots, id);
  const steps = useMemo(
    (): LadderStep[] =>
      [
        { count: (rungs[0]?.countAfter ?? 0) + 1, cost: 0, merged: null },
        ...rungs.map(({ countAfter, cost, from, into }) => ({
          count: countAfter,
          cost,
          merged: [idRgb(from), idRgb(into)] as const,
        })),
      ]
        .filter(({ count: at }) => at <= MOST_STEPS)
        .reverse(),
    [rungs],
  );
  const inks = spots.filter(({ role }) => role === "ink").length;
  const money = (amount: number) => `${settings.currency}${amount.toFixed(2)}`;
  return (
    <Group title="How many">
      <NumberField
        label="Number of colours"
        value={inPicture.length}
        unit=""
        min={rungs.at(-1)?.countAfter ?? Math.max(1, inPicture.length)}
        max={Math.max(1, (rungs[0]?.countAfter ?? inPicture.length - 1) + 1)}
        whyMax="The picture has no more"
        stepBy={1}
        hint={
          nextDown
            ? `One fewer puts ${nameOf(nextDown.from)} into ${nameOf(nextDown.into)} (ΔE ${nextDown.difference.toFixed(1)})`
            : "No two colours left to merge"
        }
        onChange={(next) => setCount(Math.round(next))}
      />
      <div className="flex items-start gap-2">
        <Button onClick={() => setCount(null)} disabled={count === null}>
          Find them
        </Button>
        <p className="text-xs text-soft" data-testid="proposal">
          {sayProposal(reduced, nameOf)}
        </p>
      </div>
      {steps.length > 1 && (
        <div className="mt-2">
          <Suspense fallback={<div className="h-28 border border-rule bg-card" />}>
            <LadderChart steps={steps} count={inPicture.length} onCount={setCount} />
          </Suspense>
          <p className="pt-0.5 text-xs text-soft">
            What each step down costs (area × ΔE), and the two that become one.
          </p>
        </div>
      )}
      <NumberField
        label="Pieces"
        value={pieces}
        unit=""
        min={1}
        max={1_000_000}
        stepBy={10}
        hint={`${inks} ${inks === 1 ? "ink comes" : "inks come"} to ${money(priceColours(inks, pieces, settings))}; one more or fewer is ${money(priceColours(1, pieces, settings))}`}
        onChange={(next) => edit((r) => setColours(r, { pieces: Math.round(next) }))}
      />
      {proposal.isShaded && (
        <p role="note" className="text-xs text-soft">
          The picture shades through {reduced.foundCount} tones: the number is a choice, and flat spots will not carry
          its gradients.
        </p>
      )}
    </Group>
  );
}

/** Ids of found colours are their hex digits. */
function idRgb(id: string) {
  return parseHex(`#${id.slice(0, 6)}`);
}

/** The name of the spot that a found colour belongs to. */
function nameSpot(spots: readonly Spot[], id: string): string {
  return spots.find((spot) => spot.id === id || spot.members.includes(id))?.name ?? formatHex(idRgb(id));
}

/** How many are proposed, how sure that is, and why. */
function sayProposal({ proposal, foundCount }: ReducedView, nameOf: (id: string) => string): string {
  const { count, sureness, nearest, smallest, isNoisy, isShaded } = proposal;
  const doubts: string[] = [];
  if (isShaded) doubts.push(`${foundCount} tones were found`);
  else if (nearest && nearest.difference < 8) {
    const [a, b] = [nameOf(nearest.a), nameOf(nearest.b)];
    doubts.push(`${a === b ? "two near tones" : `${a} and ${b}`} differ by ${nearest.difference.toFixed(1)}`);
  }
  if (smallest) doubts.push(`${nameOf(smallest.id)} covers ${(smallest.share * 100).toFixed(2)} % only`);
  if (isNoisy) doubts.push("grain or compression blurs the picture");
  return `${count} ${count === 1 ? "colour" : "colours"}, ${sureness}${doubts.length > 0 ? `: ${doubts.join("; ")}` : ""}.`;
}
