// The proof page: what the client sees. The design on the garment at size, its spots by name; no shop controls.
import { formatHex } from "@plain-palette/core/colour";
import { silhouetteFor } from "@plain-palette/core/garment";
import { formatLength, pathToSvg } from "@plain-palette/core/geometry";
import { printWidthMm } from "@plain-palette/core/recipe";
import { useEffect, useMemo } from "react";
import { Link } from "react-router";
import { useCompute, useWishes } from "../compute/use-compute.ts";
import { garmentsOf } from "../garment/garments.ts";
import { useJob } from "../job/use-job.ts";
import { useShop } from "../shop/use-shop.ts";

const PROOF_WISHES = { upTo: "edit" } as const;

export function Proof() {
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const patch = useJob((state) => state.patch);
  const compute = useCompute();
  const { computed } = compute;
  useWishes(compute, job.artwork, recipe, PROOF_WISHES);
  const { prepared, reduced, traced, failure } = computed;
  const size = prepared?.frame ?? job.artwork;
  const silhouette = silhouetteFor(recipe.artwork.placement);
  const { box, printAt } = silhouette;
  const widthMm = printWidthMm(recipe, size);
  const heightMm = (widthMm * size.height) / size.width;
  const { width, garment } = recipe.artwork;
  const { shelf } = useShop();
  const worn = garmentsOf(shelf).find(({ hex }) => hex === garment);
  const isFar = job.step !== "proof";
  useEffect(() => {
    document.title = `Proof ${job.number} · ${job.title}`;
    if (isFar) void patch({ step: "proof" });
  }, [job.number, job.title, isFar, patch]);
  const inks = useMemo(() => reduced?.spots.filter((spot) => spot.role === "ink") ?? [], [reduced]);
  const shapes = useMemo(() => {
    const spotOf = new Map(inks.map((spot) => [spot.id, spot]));
    return (traced?.layers ?? []).flatMap(({ fills }, layer) =>
      fills.flatMap(({ spotId, paths }) => {
        const spot = spotOf.get(spotId);
        return spot ? [{ key: `${layer} ${spotId}`, spot, d: paths.map((path) => pathToSvg(path, 2)).join("") }] : [];
      }),
    );
  }, [inks, traced]);
  const scale = widthMm / size.width;
  return (
    <div className="min-h-full bg-table">
      <header className="flex items-baseline gap-4 border-b border-rule bg-sheet px-8 py-4">
        <div className="flex-1">
          <p className="text-soft">Proof for {job.client || "the client"}</p>
          <h1 className="text-2xl font-semibold leading-tight">{job.title}</h1>
        </div>
        <p className="text-soft">
          Quayside Print Room · No. {job.number} · version {job.head}
        </p>
        <Link to={`/jobs/${job.id}/output`} className="underline print:hidden">
          Back to the job
        </Link>
      </header>
      <main className="mx-auto grid max-w-6xl grid-cols-[1fr_20rem] gap-6 p-6">
        <figure className="border border-rule bg-[#e9e8e5] p-4">
          {failure && <p role="alert">The proof could not be drawn: {failure}</p>}
          {!traced && !failure && <p role="status">Drawing the proof ...</p>}
          <svg
            viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
            className="h-[34rem] w-full"
            role="img"
            aria-label={`${job.title} on the ${silhouette.name} of the garment`}
          >
            <path d={silhouette.outline} fill={garment} stroke="rgb(0 0 0 / .35)" strokeWidth="1.5" />
            <path d={silhouette.seams} fill="none" stroke="rgb(128 128 128 / .5)" strokeWidth="1" />
            <g transform={`translate(${printAt.x - widthMm / 2} ${printAt.y}) scale(${scale})`}>
              {shapes.map(({ key, spot, d }) => (
                <path
                  key={key}
                  d={d}
                  fill={formatHex(spot.rgb)}
                  stroke={formatHex(spot.rgb)}
                  strokeWidth={0.3}
                  data-spot={spot.name}
                />
              ))}
            </g>
          </svg>
          {widthMm > silhouette.widthMm && (
            <p role="note">The print is wider than the garment is flat there ({silhouette.name}).</p>
          )}
        </figure>
        <section aria-label="What will be printed">
          <dl className="border border-rule bg-card p-4">
            <dt className="text-soft">Printed size</dt>
            <dd className="mb-3 text-lg font-semibold">
              {prepared ? (
                `${formatLength(widthMm, width.unit)} × ${formatLength(heightMm, width.unit)}`
              ) : (
                <span role="status">Measuring ...</span>
              )}
            </dd>
            {recipe.artwork.placement && (
              <>
                <dt className="text-soft">Where</dt>
                <dd className="mb-3">{recipe.artwork.placement.name}</dd>
              </>
            )}
            <dt className="text-soft">Garment</dt>
            <dd className="flex items-center gap-2">
              <span className="size-5 border border-soft/50" style={{ background: garment }} />
              {worn?.label ?? garment}
            </dd>
          </dl>
          <h2 className="mb-2 mt-5 font-semibold">
            {reduced ? `${inks.length} ${inks.length === 1 ? "colour" : "colours"}` : "Colours"}
          </h2>
          <ul aria-label="Colours" className="border border-rule bg-card">
            {inks.map((spot) => (
              <li key={spot.id} className="flex items-center gap-3 border-t border-rule px-3 py-2 first:border-t-0">
                <span className="h-6 w-12 border border-soft/40" style={{ background: formatHex(spot.rgb) }} />
                <span className="flex-1 font-semibold">{spot.name}</span>
                <span className="text-soft">{formatHex(spot.rgb)}</span>
              </li>
            ))}
          </ul>
          <p className="mt-3 text-xs text-soft">
            Colours on a screen are close to the inks, not the same. Ask for a strike-off where it matters.
          </p>
        </section>
      </main>
    </div>
  );
}
