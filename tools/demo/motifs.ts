// Motifs that Quayside Print Room keeps: drawn here, in flat colours, at the sizes that they are used at.

/** A motif as its file comes, and how it is filed. */
export interface DemoMotif {
  readonly name: string;
  readonly folder: string;
  readonly words: string;
  readonly svg: string;
}

const NAVY = "#1d2a44";
const RED = "#c8402f";
const CREAM = "#f4ead2";
const GOLD = "#e0a526";
const SEA = "#2f6f8f";
const WHITE = "#ffffff";

function draw(widthMm: number, box: readonly [number, number], body: string): string {
  const [width, height] = box;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${(widthMm * height) / width}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`;
}

const petal = (deg: number, fill: string) =>
  `<path d="M50 50C38 34 40 14 50 4C60 14 62 34 50 50Z" fill="${fill}" transform="rotate(${deg} 50 50)"/>`;
const turns = (count: number, one: (deg: number) => string) =>
  Array.from({ length: count }, (_, k) => one((360 * k) / count)).join("");

export const DEMO_MOTIFS: readonly DemoMotif[] = [
  {
    ...{ name: "Tern in flight", folder: "Birds", words: "island ferry sea gull wing" },
    svg: draw(
      60,
      [160, 90],
      `<path d="M4 30C40 14 66 26 82 46C96 20 128 4 157 8C132 16 112 34 104 54C112 60 124 62 136 60L120 70C112 76 96 78 86 72L66 84L70 68C58 48 34 34 4 30Z" fill="${WHITE}"/><path d="M136 60L156 66L128 70Z" fill="${RED}"/><path d="M112 58C118 54 128 56 134 60L124 62C119 62 115 61 112 58Z" fill="${NAVY}"/><path d="M4 30C22 23 38 22 52 27L40 29Z" fill="${NAVY}"/>`,
    ),
  },
  {
    ...{ name: "Lighthouse", folder: "Harbour", words: "island tower lamp" },
    svg: draw(
      40,
      [80, 150],
      `<path d="M26 42H54L64 140H16Z" fill="${WHITE}"/><path d="M24 62H56L58 82H22ZM20 102H60L62 122H18Z" fill="${RED}"/><path d="M22 34H58V42H22ZM10 140H70V148H10Z" fill="${NAVY}"/><path d="M30 16H50V34H30Z" fill="${GOLD}"/><path d="M26 16L40 2L54 16Z" fill="${NAVY}"/><path d="M36 140V128A4 4 0 0 1 44 128V140Z" fill="${NAVY}"/>`,
    ),
  },
  {
    ...{ name: "Anchor", folder: "Harbour", words: "boat crew" },
    svg: draw(
      35,
      [100, 120],
      `<path fill-rule="evenodd" d="M50 4A14 14 0 0 1 56 31V40H76V50H56V100C72 97 82 88 86 74L76 78L88 56L98 80L91 77C87 100 72 114 50 117C28 114 13 100 9 77L2 80L12 56L24 78L14 74C18 88 28 97 44 100V50H24V40H44V31A14 14 0 0 1 50 4ZM50 12A6 6 0 1 0 50 24A6 6 0 1 0 50 12Z" fill="${NAVY}"/>`,
    ),
  },
  {
    ...{ name: "Wave border", folder: "Borders", words: "sea row edge" },
    svg: draw(
      30,
      [120, 60],
      `<path d="M0 56C18 56 30 44 34 28C38 12 56 2 74 10C62 10 56 20 62 28C68 36 82 34 86 24C98 40 106 56 120 56Z" fill="${SEA}"/><path d="M0 60H120V56H0Z" fill="${NAVY}"/>`,
    ),
  },
  {
    ...{ name: "Diamond kite", folder: "Kites", words: "festival tail wind" },
    svg: draw(
      45,
      [110, 150],
      `<path d="M55 2L55 62L8 46Z" fill="${RED}"/><path d="M55 2L102 46L55 62Z" fill="${GOLD}"/><path d="M8 46L55 62L55 104Z" fill="${SEA}"/><path d="M55 62L102 46L55 104Z" fill="${CREAM}"/><path d="M55 104C70 114 40 124 55 134C66 142 56 146 52 148" fill="none" stroke="${NAVY}" stroke-width="4" stroke-linecap="round"/><path d="M44 116L58 120L47 127Z" fill="${RED}"/>`,
    ),
  },
  {
    ...{ name: "Rye ear", folder: "Bakery", words: "bread grain hearth" },
    svg: draw(
      25,
      [60, 140],
      `<path d="M30 138V40" fill="none" stroke="${GOLD}" stroke-width="5" stroke-linecap="round"/>${[0, 1, 2, 3]
        .map(
          (k) =>
            `<path d="M30 ${60 + 20 * k}C14 ${58 + 20 * k} 8 ${44 + 20 * k} 10 ${34 + 20 * k}C22 ${38 + 20 * k} 30 ${46 + 20 * k} 30 ${60 + 20 * k}C46 ${58 + 20 * k} 52 ${44 + 20 * k} 50 ${34 + 20 * k}C38 ${38 + 20 * k} 30 ${46 + 20 * k} 30 ${60 + 20 * k}Z" fill="${GOLD}"/>`,
        )
        .join("")}<path d="M30 46C20 34 22 14 30 2C38 14 40 34 30 46Z" fill="${GOLD}"/>`,
    ),
  },
  {
    ...{ name: "Round loaf", folder: "Bakery", words: "bread hearth" },
    svg: draw(
      40,
      [120, 90],
      `<ellipse cx="60" cy="48" rx="56" ry="38" fill="${GOLD}"/><g fill="none" stroke="${CREAM}" stroke-width="6" stroke-linecap="round"><path d="M34 24C30 40 32 58 38 70"/><path d="M60 18C56 38 56 58 60 76"/><path d="M86 24C90 40 88 58 82 70"/></g>`,
    ),
  },
  {
    ...{ name: "Crossed oars", folder: "Rowing", words: "club blade crest" },
    svg: draw(
      60,
      [140, 140],
      `<g id="oar"><path d="M16 124L100 40" stroke="${NAVY}" stroke-width="7" fill="none" stroke-linecap="round"/><path d="M94 30C106 12 122 6 136 4C134 18 128 34 110 46Z" fill="${RED}"/><path d="M112 20L122 28L110 38L102 30Z" fill="${WHITE}"/></g><g transform="translate(140 0) scale(-1 1)"><path d="M16 124L100 40" stroke="${NAVY}" stroke-width="7" fill="none" stroke-linecap="round"/><path d="M94 30C106 12 122 6 136 4C134 18 128 34 110 46Z" fill="${RED}"/><path d="M112 20L122 28L110 38L102 30Z" fill="${WHITE}"/></g>`,
    ),
  },
  {
    ...{ name: "Compass star", folder: "Harbour", words: "pilots rose north" },
    svg: draw(
      50,
      [100, 100],
      `<circle cx="50" cy="50" r="34" fill="none" stroke="${NAVY}" stroke-width="3"/>${turns(4, (deg) => `<path d="M50 50L44 44L50 18Z" fill="${GOLD}" transform="rotate(${deg + 45} 50 50)"/><path d="M50 50L56 44L50 18Z" fill="${NAVY}" transform="rotate(${deg + 45} 50 50)"/>`)}${turns(4, (deg) => `<path d="M50 50L41 41L50 2Z" fill="${RED}" transform="rotate(${deg} 50 50)"/><path d="M50 50L59 41L50 2Z" fill="${NAVY}" transform="rotate(${deg} 50 50)"/>`)}`,
    ),
  },
  {
    ...{ name: "Thrift flower", folder: "Borders", words: "shore pink blossom" },
    svg: draw(
      18,
      [100, 100],
      `${turns(8, (deg) => petal(deg, "#d9698f"))}${turns(8, (deg) => `<path d="M50 50C46 44 46 36 50 30C54 36 54 44 50 50Z" fill="${CREAM}" transform="rotate(${deg + 22.5} 50 50)"/>`)}<circle cx="50" cy="50" r="9" fill="${GOLD}"/>`,
    ),
  },
  {
    ...{ name: "Name badge", folder: "Badges", words: "frame crew name" },
    svg: draw(
      75,
      [150, 60],
      `<rect x="1" y="1" width="148" height="58" rx="12" fill="${NAVY}"/><rect x="6" y="6" width="138" height="48" rx="8" fill="${CREAM}"/><path d="M12 30L19 22L26 30L19 38Z" fill="${RED}"/>`,
    ),
  },
  {
    ...{ name: "Signal pennant", folder: "Harbour", words: "flag sail pilots" },
    svg: draw(
      45,
      [140, 80],
      `<path d="M6 2H14V78H6Z" fill="${NAVY}"/><path d="M14 6L60 14V54L14 62Z" fill="${RED}"/><path d="M60 14L134 34L60 54Z" fill="${GOLD}"/>`,
    ),
  },
];
