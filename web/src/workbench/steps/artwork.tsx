// Artwork: what arrived, how wide it prints, on what.
import { formatLength, toMm } from "@plain-palette/core/geometry";
import { effectiveDpi } from "@plain-palette/core/recipe";
import { useId } from "react";
import { artworkFileUrl } from "../../api/client.ts";
import { useJob } from "../../job/use-job.ts";
import { LengthField, Row } from "../../parts/fields.tsx";
import { Fact, Group, Panel } from "./panel.tsx";

/** Plain verdicts on effective resolution, dpi (common practice, no source). */
function verdict(dpi: number): string {
  if (dpi >= 300) return "good";
  if (dpi >= 150) return "enough for shapes, soft for fine lettering";
  return "low: fine detail will be guessed";
}

export function ArtworkStep() {
  const { artwork } = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const edit = useJob((state) => state.edit);
  const { width } = recipe.artwork;
  const widthMm = toMm(width);
  const heightMm = (widthMm * artwork.height) / artwork.width;
  const dpi = effectiveDpi(artwork.width, widthMm);
  return (
    <Panel step="artwork" next="colours">
      <Group title="On the garment">
        <LengthField
          label="Print width"
          value={width}
          min={5}
          max={2000}
          hint={`${formatLength(heightMm, width.unit)} high. Type any unit: 10.5in, 267 mm, 4"`}
          onChange={(next) => edit((r) => ({ ...r, artwork: { ...r.artwork, width: next } }))}
        />
        <GarmentField
          value={recipe.artwork.garment}
          onChange={(garment) => edit((r) => ({ ...r, artwork: { ...r.artwork, garment } }))}
        />
        <dl className="mt-2">
          <Fact label="Effective resolution">
            <b className={dpi < 150 ? "text-wrong" : ""}>{Math.round(dpi)} dpi</b>
          </Fact>
        </dl>
        <p className="text-xs text-soft">At this width: {verdict(dpi)}.</p>
      </Group>
      <Group title="The client's file">
        <dl>
          <Fact label="Name">
            <span className="break-all">{artwork.fileName}</span>
          </Fact>
          <Fact label="Kind">
            {artwork.kind === "svg" ? "SVG: shapes, drawn as pixels" : `${artwork.kind.toUpperCase()}: pixels`}
          </Fact>
          <Fact label="Size">
            {artwork.width} × {artwork.height} px
          </Fact>
          <Fact label="Weight">
            {artwork.bytes > 1e6 ? `${(artwork.bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(artwork.bytes / 1e3)} kB`}
          </Fact>
          <Fact label="Transparency">{artwork.hasAlpha ? "has an alpha channel" : "none"}</Fact>
          {artwork.dpi !== null && <Fact label="Written in the file">{Math.round(artwork.dpi)} dpi</Fact>}
        </dl>
        <p className="mt-2 text-xs text-soft">
          Kept untouched.{" "}
          <a href={artworkFileUrl(artwork.hash)} download={artwork.fileName} className="underline">
            Download it
          </a>
        </p>
      </Group>
    </Panel>
  );
}

function GarmentField({ value, onChange }: { value: string; onChange(hex: string): void }) {
  const id = useId();
  return (
    <Row label="Garment colour" htmlFor={id}>
      <span className="flex items-center gap-2 rounded-[3px] border border-rule bg-card px-2 py-0.5">
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
