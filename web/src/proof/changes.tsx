// What the client said yes to beside what they would see now, a map of where they differ, and each difference by name.
import { parseHex } from "@plain-palette/core/colour";
import { compareProofs, type Proof } from "@plain-palette/core/proof";
import { makeRaster, mapDifference } from "@plain-palette/core/raster";
import { useEffect, useRef, useState } from "react";
import { dayInWords } from "../proof-view/days.ts";
import { CloseUp } from "../proof-view/proof-picture.tsx";
import { drawProof } from "./draw-proof.ts";

/** How wide the map is, px. */
const MAP_PX = 720;
/** A difference that is seen beside each other, CIEDE2000 (as on the difference map of the table). */
const VISIBLE = 2;

interface Props {
  readonly before: Proof;
  readonly now: Proof;
  readonly yesDay: string;
}

export function Changes({ before, now, yesDay }: Props) {
  const said = compareProofs(before, now);
  const pictures = [
    [`Yes of ${dayInWords(yesDay)}`, before],
    ["As it is now", now],
  ] as const;
  return (
    <div className="grid gap-3">
      <div className="grid grid-cols-3 gap-3 narrow:grid-cols-1">
        {pictures.map(([title, proof]) => (
          <figure key={title} className="border border-rule bg-[#e9e8e5] p-3">
            <figcaption className="pb-2 font-semibold">{title}</figcaption>
            <CloseUp proof={proof} pins={[]} pending={null} className="mx-auto block max-h-96 max-w-full" />
          </figure>
        ))}
        <DifferenceMap before={before} now={now} />
      </div>
      <section aria-label="Differences" className="border border-rule bg-card p-3">
        {said.length === 0 ? (
          <p>The client would see the same.</p>
        ) : (
          <ul className="grid gap-0.5">
            {said.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

function DifferenceMap({ before, now }: { before: Proof; now: Proof }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [share, setShare] = useState<number | null>(null);
  useEffect(() => {
    let isGone = false;
    void compare(before, now).then((found) => {
      const target = canvas.current;
      const context = target?.getContext("2d");
      if (isGone || !target || !context) return;
      [target.width, target.height] = [found.image.width, found.image.height];
      context.putImageData(found.image, 0, 0);
      setShare(found.share);
    });
    return () => {
      isGone = true;
    };
  }, [before, now]);
  return (
    <figure className="border border-rule bg-[#e9e8e5] p-3">
      <figcaption className="pb-2 font-semibold" role="status">
        {share === null ? "Comparing ..." : `Different: ${(share * 100).toFixed(1)} % of the print`}
      </figcaption>
      <canvas
        ref={canvas}
        aria-label="Where the two differ, dark"
        className="mx-auto block max-h-96 max-w-full bg-white"
      />
    </figure>
  );
}

/** Both drawn at one scale on their garments, where they differ dark on white. */
async function compare(before: Proof, now: Proof) {
  const [widthMm, heightMm] = [Math.max(before.widthMm, now.widthMm), Math.max(before.heightMm, now.heightMm)];
  const size = { width: MAP_PX, height: Math.max(1, Math.round((MAP_PX * heightMm) / widthMm)) };
  const [a, b] = await Promise.all([before, now].map((proof) => drawProof(proof, size, MAP_PX / widthMm)));
  const map =
    a && b
      ? mapDifference(
          makeRaster(size.width, size.height, a.data),
          makeRaster(size.width, size.height, b.data),
          parseHex(now.garment.hex),
        )
      : new Uint8Array(0);
  const image = new ImageData(size.width, size.height);
  let visible = 0;
  map.forEach((value, p) => {
    if (value > VISIBLE) visible++;
    const shade = value > VISIBLE ? Math.max(0, 160 - value * 5) : 255;
    image.data.set([value > VISIBLE ? Math.min(255, shade + 60) : 255, shade, shade, 255], p * 4);
  });
  return { image, share: map.length > 0 ? visible / map.length : 0 };
}
