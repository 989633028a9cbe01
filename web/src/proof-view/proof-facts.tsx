// What a proof says in words: size, place, garment, colours with what they are made of, and what one should know.
import { silhouetteOf } from "@plain-palette/core/garment";
import { formatLength } from "@plain-palette/core/geometry";
import type { Proof } from "@plain-palette/core/proof";

export function ProofFacts({ proof }: { proof: Proof }) {
  const { widthMm, heightMm, unit, garment, madeWith, counts, pieces, price } = proof;
  const facts: readonly (readonly [string, string])[] = [
    ["Size", `${formatLength(widthMm, unit)} × ${formatLength(heightMm, unit)}`],
    ["Where", sayPlacement(proof)],
    ["Made with", [madeWith, ...counts].join(", ")],
    ["Pieces", `${pieces}`],
    ...(price ? [["Price", price] as const] : []),
  ];
  return (
    <dl className="grid grid-cols-[5rem_1fr] gap-y-1 border border-rule bg-card p-4">
      {facts.map(([name, said]) => (
        <div key={name} className="contents">
          <dt className="text-soft">{name}</dt>
          <dd className="min-w-0 [overflow-wrap:anywhere]">{said}</dd>
        </div>
      ))}
      <dt className="text-soft">Garment</dt>
      <dd className="flex items-center gap-2">
        <span className="size-4 border border-soft/50" style={{ background: garment.hex }} />
        {garment.name}
      </dd>
    </dl>
  );
}

/** Where the print goes, measured. */
export function sayPlacement({ placement, unit }: Pick<Proof, "placement" | "unit">): string {
  const { name, belowMm, asideMm, shownOn } = placement;
  // Measured with a tape: no finer than that.
  const length = (mm: number) => formatLength(unit === "in" ? Math.round(mm / 3.175) * 3.175 : Math.round(mm), unit);
  const side = asideMm > 0 ? "right" : "left";
  const aside = asideMm === 0 ? "in the middle" : `${length(Math.abs(asideMm))} to the ${side} of the middle`;
  return `${name}, ${length(belowMm)} under ${silhouetteOf(shownOn).edge}, ${aside}`;
}

export function ProofColours({ proof: { spots, madeWith } }: { proof: Proof }) {
  return (
    <section>
      <h2 className="mb-1 font-semibold">{spots.length === 1 ? "1 colour" : `${spots.length} colours`}</h2>
      <ul aria-label="Colours" className="border border-rule bg-card">
        {spots.map((spot) => (
          <li key={spot.id} className="flex items-center gap-3 border-t border-rule px-3 py-1.5 first:border-t-0">
            <span className="h-6 w-10 shrink-0 border border-soft/40" style={{ background: spot.hex }} />
            <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
              <b className="font-semibold">{spot.name}</b>
              {spot.stock && <span className="block text-soft">{spot.stock}</span>}
              {spot.madeWith !== madeWith && <span className="block text-soft">{spot.madeWith}</span>}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-xs text-soft">Colours on a screen are close to what is made, not the same.</p>
    </section>
  );
}

export function ProofRemarks({ proof: { remarks, message } }: { proof: Proof }) {
  return (
    <>
      {message && (
        <p className="whitespace-pre-wrap border-l-4 border-ink bg-card px-3 py-2 [overflow-wrap:anywhere]">
          {message}
        </p>
      )}
      {remarks.length > 0 && (
        <ul aria-label="Good to know" className="grid gap-1 border border-rule bg-card px-3 py-2">
          {remarks.map(({ text, at }) => (
            <li key={text}>
              {at && (
                <span className="mr-1 inline-grid size-4 place-items-center rounded-full bg-wrong text-[10px] font-semibold text-white">
                  !
                </span>
              )}
              {text}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
