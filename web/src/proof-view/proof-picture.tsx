// The picture of a proof: on its garment, or close up with the pins that shop and client have put on it.
import { silhouetteOf } from "@plain-palette/core/garment";
import { discs, type Proof } from "@plain-palette/core/proof";
import { type KeyboardEvent, type PointerEvent, useMemo, useRef } from "react";

interface Place {
  readonly x: number;
  readonly y: number;
}

/** A place on the print, mm, and the number it is told by. */
export interface Pin extends Place {
  readonly number: number;
  readonly by: "shop" | "client" | "check";
}

/** Under abutting shapes, so that no hairline shows between them, mm. */
const SEAM_MM = 0.08;

/** What is drawn, in millimetres from the print's corner. */
export function PrintParts({ picture }: { picture: Proof["picture"] }) {
  // Thousands of paths: drawn anew only where they are others.
  return useMemo(
    () => (
      <g strokeLinejoin="round" strokeLinecap="round">
        {picture.map((part, k) => {
          // biome-ignore-start lint/suspicious/noArrayIndexKey: parts of a frozen picture have no other name.
          if (part.kind === "thread")
            return <path key={k} d={part.d} fill="none" stroke={part.hex} strokeWidth={part.widthMm} />;
          if (part.kind === "fill")
            return <path key={k} d={part.d} fill={part.hex} stroke={part.hex} strokeWidth={SEAM_MM} />;
          return <path key={k} d={discs(part.places, part.diameterMm / 2)} fill={part.hex} />;
          // biome-ignore-end lint/suspicious/noArrayIndexKey: as above.
        })}
      </g>
    ),
    [picture],
  );
}

/** The print where it goes. */
export function OnGarment({ proof, className = "" }: { proof: Proof; className?: string }) {
  const { placement, garment, widthMm, heightMm, picture, title } = proof;
  const { box, outline, seams, name } = silhouetteOf(placement.shownOn);
  return (
    <svg
      viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
      className={className}
      role="img"
      aria-label={`${title} on the ${name} of the garment, ${widthMm.toFixed(0)} by ${heightMm.toFixed(0)} millimetres`}
    >
      <path d={outline} fill={garment.hex} stroke="rgb(0 0 0 / .35)" strokeWidth="1.5" />
      <path d={seams} fill="none" stroke="rgb(128 128 128 / .5)" strokeWidth="1" />
      <g transform={`translate(${placement.asideMm - widthMm / 2} ${placement.belowMm})`}>
        <PrintParts picture={picture} />
      </g>
    </svg>
  );
}

interface CloseUpProps {
  readonly proof: Proof;
  readonly pins: readonly Pin[];
  /** The pin that is being put, if one is. */
  readonly pending: Place | null;
  readonly className?: string;
  /** Where a press, or a key, puts the pending pin; none may be put if it is left out. */
  onPlace?(at: Place): void;
}

/** How far a key moves a pin, as a share of the print's width. */
const KEY_SHARE = 0.02;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const FILLS = { shop: "#1e1d1a", client: "#00635a", check: "#9c2a16" } as const;

/** The print alone on its cloth. */
export function CloseUp({ proof, pins, pending, className = "", onPlace }: CloseUpProps) {
  const { widthMm, heightMm, picture, garment, title } = proof;
  const frame = useRef<SVGSVGElement>(null);
  const size = Math.max(widthMm, heightMm) / 28;
  const place = (event: PointerEvent) => {
    const box = frame.current?.getBoundingClientRect();
    if (!box || !onPlace) return;
    const scale = widthMm / box.width;
    onPlace(within(proof, { x: (event.clientX - box.left) * scale, y: (event.clientY - box.top) * scale }));
  };
  const move = (event: KeyboardEvent) => {
    const arrow = ARROWS[event.key];
    if (!onPlace || (!arrow && event.key !== "Enter")) return;
    event.preventDefault();
    const from = pending ?? { x: widthMm / 2, y: heightMm / 2 };
    const by = KEY_SHARE * widthMm;
    onPlace(arrow && pending ? within(proof, { x: from.x + arrow[0] * by, y: from.y + arrow[1] * by }) : from);
  };
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${widthMm} ${heightMm}`}
      style={{ background: garment.hex, aspectRatio: `${widthMm} / ${heightMm}` }}
      className={`${className} ${onPlace ? "cursor-crosshair" : ""}`}
      {...(onPlace
        ? {
            role: "application",
            tabIndex: 0,
            "aria-label": `${title}. Enter puts a pin, arrow keys move it.`,
            onPointerUp: place,
            onKeyDown: move,
          }
        : { role: "img", "aria-label": title })}
    >
      <title>{title}</title>
      <PrintParts picture={picture} />
      {pins.map(({ x, y, number, by }) => (
        <g key={`${by} ${number}`} transform={`translate(${x} ${y})`}>
          <circle r={size * 0.62} fill={FILLS[by]} stroke="#fff" strokeWidth={size * 0.1} />
          <text y={size * 0.26} textAnchor="middle" fontSize={size * 0.75} fill="#fff" fontWeight="600">
            {by === "check" ? "!" : number}
          </text>
        </g>
      ))}
      {pending && (
        <circle
          cx={pending.x}
          cy={pending.y}
          r={size * 0.62}
          fill="rgb(240 180 41 / .6)"
          stroke="#1e1d1a"
          strokeWidth={size * 0.1}
        />
      )}
    </svg>
  );
}

function within({ widthMm, heightMm }: Proof, { x, y }: Place): Place {
  const fine = (mm: number) => Number(mm.toFixed(2));
  return { x: fine(Math.min(widthMm, Math.max(0, x))), y: fine(Math.min(heightMm, Math.max(0, y))) };
}
