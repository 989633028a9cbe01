import { describe, expect, it } from "vitest";
import type { Rgb } from "../colour/index.ts";
import { drawSvg, paint, renderSvg } from "../testing/pictures.test.support.ts";
import { type Picked, pickColour, proposeBackground, type Raster, removePicked } from "./index.ts";

const SHAPES = {
  disc: '<circle cx="100" cy="100" r="61.3"',
  star: '<path d="M100 22L120 78L180 79L132 115L150 172L100 138L50 172L68 115L20 79L80 78Z"',
  ring: '<path fill-rule="evenodd" d="M100 20a80 80 0 1 0 .1 0ZM100 60a40 40 0 1 1 -.1 0Z"',
  comb: '<path d="M30 30h140v20h-126v14h126v16h-126v24h126v7h-126v40h-14Z" transform="rotate(13 100 100)"',
};

/** The shape in one colour on another, and its coverage alone (white on black), by an independent renderer (resvg). */
function drawn(shape: string, fill: string, ground: string): { art: Raster; coverage: Raster } {
  return {
    art: drawSvg(200, `${shape} fill="${fill}"/>`, ground),
    coverage: drawSvg(200, `${shape} fill="#fff"/>`, "#000000"),
  };
}

const everywhere = (rgb: Rgb, tolerance: number) => ({ seeds: [], rgb, tolerance, reach: "everywhere" }) as const;

describe("the rim is unmixed: no halo of the old background stays", () => {
  it.each([
    ["disc", "#d8412f", "#ffffff", [255, 255, 255]],
    ["star", "#14304f", "#7fd4c1", [127, 212, 193]],
    ["ring", "#f2b134", "#2f6b4f", [47, 107, 79]],
    ["comb", "#ffffff", "#1d2a44", [29, 42, 68]],
  ] as const)(
    "%s in %s on %s: composited on black, no pixel is off its true coverage by 3 %%",
    (name, fill, ground, rgb) => {
      const { art, coverage } = drawn(SHAPES[name], fill, ground);
      const { mask } = pickColour(art, everywhere(rgb, 22));
      const clean = removePicked(art, mask);
      const ink = [1, 3, 5].map((c) => Number.parseInt(fill.slice(c, c + 2), 16));
      let worst = 0;
      for (let i = 0; i < clean.data.length; i += 4) {
        const truth = coverage.data[i] / 255;
        for (let c = 0; c < 3; c++) {
          const onBlack = (clean.data[i + c] * clean.data[i + 3]) / 255;
          worst = Math.max(worst, Math.abs(onBlack - ink[c] * truth) / 255);
        }
      }
      expect(worst).toBeLessThan(0.03);
    },
  );

  it("holds on a grainy background, too, where most of the rim lies within the tolerance", () => {
    const { art, coverage } = drawn(SHAPES.disc, "#14304f", "#e8e2d4");
    let seed = 3;
    for (let i = 0; i < art.data.length; i++) {
      if (i % 4 === 3) continue;
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      art.data[i] += ((seed >>> 24) % 7) - 3;
    }
    const { mask } = pickColour(art, {
      seeds: [{ x: 3, y: 3 }],
      rgb: [232, 226, 212],
      tolerance: 30,
      reach: "connected",
    });
    const clean = removePicked(art, mask);
    let sum = 0;
    for (let i = 0; i < clean.data.length; i += 4) sum += Math.abs(clean.data[i + 3] - coverage.data[i]) / 255;
    // Over the disc's edge (2 pi 61 pixels) the mean error stays under 3 %.
    expect(sum / (2 * Math.PI * 61.3)).toBeLessThan(0.03);
  });

  it("leaves an outline of another colour alone: thin, pale, or dark", () => {
    for (const outline of ["#000000", "#dddddd"]) {
      const art = drawSvg(
        120,
        `<rect x="30" y="30" width="60" height="60" fill="#d8412f" stroke="${outline}" stroke-width="4"/>`,
      );
      const clean = removePicked(art, pickColour(art, everywhere([255, 255, 255], 22)).mask);
      const at = (28 * 120 + 60) * 4;
      expect([...clean.data.subarray(at, at + 4)]).toEqual([...art.data.subarray(at, at + 4)]);
    }
  });
});

describe("picking", () => {
  const art = paint(60, 40, (x, y) => {
    const isBar = x >= 28 && x < 32;
    const isHole = x >= 40 && x < 50 && y >= 10 && y < 20;
    const isRing = x >= 38 && x < 52 && y >= 8 && y < 22;
    if (isBar || (isRing && !isHole)) return [216, 65, 47];
    return [240 + (x % 3), 240, 236];
  });
  const connected = (x: number, y: number, tolerance: number): Picked =>
    pickColour(art, { seeds: [{ x, y }], rgb: [241, 240, 236], tolerance, reach: "connected" });

  it("connected stops at the design; everywhere takes islands as well; more tolerance never takes less", () => {
    expect(connected(2, 2, 4).count).toBe(28 * 40);
    expect(connected(55, 2, 4).count).toBe(28 * 40 - 14 * 14);
    expect(connected(45, 15, 4).count).toBe(100);
    expect(pickColour(art, everywhere([241, 240, 236], 4)).count).toBe(56 * 40 - 14 * 14 + 100);
    expect(connected(1, 2, 0).count).toBe(40);
    let last = 0;
    for (let tolerance = 0; tolerance <= 255; tolerance += 5) {
      const { count } = connected(2, 2, tolerance);
      expect(count).toBeGreaterThanOrEqual(last);
      last = count;
    }
    expect(last).toBe(60 * 40);
  });

  it("fills every winding of a maze, as a slow fill by single pixels does", () => {
    let seed = 99;
    const maze = paint(64, 64, () => {
      seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
      return seed >>> 30 === 0 ? [0, 0, 0] : [255, 255, 255];
    });
    maze.data.fill(255, 0, 4);
    const { mask } = pickColour(maze, {
      seeds: [{ x: 0, y: 0 }],
      rgb: [255, 255, 255],
      tolerance: 1,
      reach: "connected",
    });
    const slow = new Uint8Array(64 * 64);
    const stack = [0];
    while (stack.length > 0) {
      const p = stack.pop() as number;
      if (slow[p] === 1 || maze.data[p * 4] === 0) continue;
      slow[p] = 1;
      if (p % 64 > 0) stack.push(p - 1);
      if (p % 64 < 63) stack.push(p + 1);
      if (p >= 64) stack.push(p - 64);
      if (p < 63 * 64) stack.push(p + 64);
    }
    expect(mask).toEqual(slow);
  });
});

describe("the one-click proposal", () => {
  it("finds a flat border colour in every patch that reaches the border, and counts the islands that stay", () => {
    const band =
      '<rect y="80" width="200" height="40" fill="#14304f"/><circle cx="100" cy="100" r="60" fill="#d8412f"/><circle cx="100" cy="100" r="20" fill="#ffffff"/>';
    const proposal = proposeBackground(drawSvg(200, band));
    expect(proposal).toMatchObject({ rgb: [255, 255, 255], islands: 1 });
    expect(proposal?.seeds).toHaveLength(2);
    expect(proposal?.tolerance).toBeLessThan(20);
  });

  it("tells counters of letters from a white sail: the small ones can go with the background, the large one stays", () => {
    const boat = drawSvg(
      400,
      '<rect x="60" y="60" width="280" height="180" fill="#14304f"/><path d="M100 220H260V90Z" fill="#fff"/><g fill="none" stroke="#14304f" stroke-width="8"><circle cx="120" cy="310" r="12"/><circle cx="180" cy="310" r="12"/></g>',
    );
    const proposal = proposeBackground(boat);
    if (!proposal) throw new Error("no background");
    expect(proposal.islands).toBe(3);
    expect(proposal.counters).toHaveLength(2);
    const { rgb, tolerance, seeds, counters } = proposal;
    const { mask } = pickColour(boat, { seeds: [...seeds, ...counters], rgb, tolerance, reach: "connected" });
    expect([mask[310 * 400 + 120], mask[310 * 400 + 180], mask[200 * 400 + 220]]).toEqual([1, 1, 0]);
  });

  it("finds the white box behind art on a transparent picture", () => {
    const box = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="200"><rect x="30.4" y="40.6" width="120" height="90" fill="#fdfdfd"/><circle cx="90" cy="85" r="30" fill="#d8412f"/></svg>',
    );
    const proposal = proposeBackground(box);
    expect(proposal).toMatchObject({ rgb: [253, 253, 253], islands: 0 });
    expect(proposal?.share).toBeCloseTo((120 * 90 - Math.PI * 900) / 40000, 1);
    if (!proposal) throw new Error("nothing proposed");
    const clean = removePicked(box, pickColour(box, { ...proposal, reach: "connected" }).mask);
    // Of the box's half-transparent rim nothing stays either: only the disc is left.
    const left = clean.data.reduce((sum, value, i) => (i % 4 === 3 ? sum + value / 255 : sum), 0);
    expect(Math.abs(left - Math.PI * 900)).toBeLessThan(6);
  });

  it("takes a wider tolerance for an uneven background, but never one that spills", () => {
    const uneven = paint(120, 120, (x, y) => {
      if ((x - 60) ** 2 + (y - 60) ** 2 < 900) return [20, 48, 79];
      const g = 225 + Math.round(12 * Math.sin(x / 9) + 8 * Math.cos(y / 7));
      return [g, g, g - 6];
    });
    const proposal = proposeBackground(uneven);
    expect(proposal?.tolerance).toBeGreaterThan(20);
    expect(proposal?.tolerance).toBeLessThanOrEqual(40);
  });

  it("proposes nothing for art without a box, and nothing for a picture full of colours", () => {
    const bare = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><circle cx="50" cy="50" r="40" fill="#d8412f"/></svg>',
    );
    expect(proposeBackground(bare)).toBeNull();
    expect(proposeBackground(paint(64, 64, (x, y) => [x * 4, y * 4, (x * y) % 256]))).toBeNull();
  });
});
