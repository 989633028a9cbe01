// The proof page: what the client sees. The design on the garment at size, its spots by name; no shop controls.
import { formatHex } from "@plain-palette/core/colour";
import { formatLength, pathToSvg } from "@plain-palette/core/geometry";
import { printWidthMm } from "@plain-palette/core/recipe";
import { useEffect, useMemo } from "react";
import { Link } from "react-router";
import { useCompute } from "../compute/use-compute.ts";
import { useJob } from "../job/use-job.ts";

const PROOF_WISHES = { upTo: "simplify" } as const;

/** A garment's front: width of the body between the side seams, mm, and where the print's top is under the collar (common practice, no source). */
const BODY_MM = 510;
const TOP_MM = 75;
/** The drawn garment in millimetres: a plain front with short sleeves. */
const FRONT = "M-95 0C-60 52 60 52 95 0L190 22L330 160L270 224L255 202V690H-255V202L-270 224L-330 160L-190 22Z";

export function Proof() {
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const patch = useJob((state) => state.patch);
  const { computed } = useCompute(job.artwork, recipe, PROOF_WISHES);
  const { prepared, reduced, traced, failure } = computed;
  const size = prepared?.frame ?? job.artwork;
  const widthMm = printWidthMm(recipe, size);
  const heightMm = (widthMm * size.height) / size.width;
  const { width, garment } = recipe.artwork;
  const isFar = job.step !== "proof";
  useEffect(() => {
    document.title = `Proof ${job.number} · ${job.title}`;
    if (isFar) void patch({ step: "proof" });
  }, [job.number, job.title, isFar, patch]);
  const inks = useMemo(() => reduced?.spots.filter((spot) => spot.role === "ink") ?? [], [reduced]);
  const shapes = useMemo(() => {
    const drawn = inks.map((spot) => {
      const fill = traced?.fills.find(({ spotId }) => spotId === spot.id);
      const under = fill?.under ?? [];
      return { spot, isUnder: under.length > 0, paths: [...under, ...(fill?.paths ?? [])] };
    });
    // What runs under lines is drawn before them.
    drawn.sort((a, b) => Number(b.isUnder) - Number(a.isUnder));
    return drawn.map(({ spot, paths }) => ({ spot, d: paths.map((path) => pathToSvg(path, 2)).join("") }));
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
            viewBox="-350 -20 700 730"
            className="h-[34rem] w-full"
            role="img"
            aria-label={`${job.title} on the garment`}
          >
            <path d={FRONT} fill={garment} stroke="rgb(0 0 0 / .35)" strokeWidth="1.5" />
            <g transform={`translate(${-widthMm / 2} ${TOP_MM}) scale(${scale})`}>
              {shapes.map(({ spot, d }) => (
                <path
                  key={spot.id}
                  d={d}
                  fill={formatHex(spot.rgb)}
                  stroke={formatHex(spot.rgb)}
                  strokeWidth={0.3}
                  data-spot={spot.name}
                />
              ))}
            </g>
          </svg>
          {widthMm > BODY_MM && <p role="note">The print is wider than the garment's front.</p>}
        </figure>
        <section aria-label="What will be printed">
          <dl className="border border-rule bg-card p-4">
            <dt className="text-soft">Printed size</dt>
            <dd className="mb-3 text-lg font-semibold">
              {formatLength(widthMm, width.unit)} × {formatLength(heightMm, width.unit)}
            </dd>
            <dt className="text-soft">Garment</dt>
            <dd className="flex items-center gap-2">
              <span className="size-5 border border-soft/50" style={{ background: garment }} />
              {garment}
            </dd>
          </dl>
          <h2 className="mb-2 mt-5 font-semibold">
            {inks.length} {inks.length === 1 ? "colour" : "colours"}
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
