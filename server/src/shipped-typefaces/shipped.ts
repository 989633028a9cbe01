// The typefaces that come with the product, by what practitioners look for. All are free to set, cut and sew: SIL Open Font
// License 1.1, or the licence of Bitstream Vera.
import type { TypefaceKind } from "@plain-palette/contract";

/** A family in the weights that are shipped. */
export interface ShippedFamily {
  readonly family: string;
  readonly kind: TypefaceKind;
  readonly weights: readonly number[];
}

const family = (kind: TypefaceKind, name: string, ...weights: readonly number[]): ShippedFamily => ({
  family: name,
  kind,
  weights: weights.length > 0 ? weights : [400],
});

export const FONTSOURCE_FAMILIES: readonly ShippedFamily[] = [
  family("sans", "Public Sans", 400, 700, 900),
  family("sans", "Archivo Black"),
  family("sans", "Rubik", 500, 700),
  family("sans", "Secular One"),
  family("condensed", "Anton"),
  family("condensed", "Oswald", 400, 600),
  family("condensed", "Bebas Neue"),
  family("condensed", "Barlow Condensed", 600),
  family("condensed", "Saira Extra Condensed", 700),
  family("wide", "Krona One"),
  family("wide", "Michroma"),
  family("wide", "Encode Sans Expanded", 700),
  family("rounded", "Nunito", 700, 900),
  family("rounded", "Varela Round"),
  family("rounded", "Fredoka", 600),
  family("rounded", "Comfortaa", 700),
  family("geometric", "Montserrat", 500, 800),
  family("geometric", "Josefin Sans", 600),
  family("geometric", "League Spartan", 700),
  family("slab", "Alfa Slab One"),
  family("slab", "Zilla Slab", 600),
  family("slab", "Rokkitt", 700),
  family("old-style", "EB Garamond", 500, 800),
  family("old-style", "Libre Baskerville", 400, 700),
  family("old-style", "Amiri", 400, 700),
  family("modern", "Playfair Display", 700),
  family("modern", "Abril Fatface"),
  family("modern", "Bodoni Moda", 600),
  family("stencil", "Stardos Stencil", 700),
  family("stencil", "Saira Stencil One"),
  family("stencil", "Black Ops One"),
  family("athletic", "Graduate"),
  family("athletic", "Russo One"),
  family("athletic", "Teko", 600),
  family("western", "Rye"),
  family("western", "Sancreek"),
  family("western", "Holtwood One SC"),
  family("deco", "Limelight"),
  family("deco", "Poiret One"),
  family("deco", "Righteous"),
  family("deco", "Monoton"),
  family("script", "Great Vibes"),
  family("script", "Pinyon Script"),
  family("script", "Kaushan Script"),
  family("script", "Lobster"),
  family("script", "Pacifico"),
  family("script", "Sacramento"),
  family("hand", "Caveat", 700),
  family("hand", "Shadows Into Light"),
  family("hand", "Amatic SC", 700),
  family("blackletter", "Pirata One"),
  family("blackletter", "UnifrakturMaguntia"),
  family("typewriter", "Courier Prime", 400, 700),
  family("comic", "Bangers"),
  family("comic", "Comic Neue", 700),
  family("pixel", "Press Start 2P"),
  family("pixel", "Silkscreen"),
];

/** Single files of npm dejavu-fonts-ttf. */
export const DEJAVU_FILES = [
  { id: "dejavu-sans-700", family: "DejaVu Sans", kind: "sans", file: "DejaVuSans-Bold" },
  {
    id: "dejavu-sans-condensed-700",
    family: "DejaVu Sans Condensed",
    kind: "condensed",
    file: "DejaVuSansCondensed-Bold",
  },
  { id: "dejavu-serif-700", family: "DejaVu Serif", kind: "slab", file: "DejaVuSerif-Bold" },
] as const;
