import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { drawSvg, paint } from "../testing/pictures.test.support.ts";
import {
  type Corners,
  composeMaps,
  cropFrame,
  flipFrame,
  invertMap,
  keystoneFrame,
  mapPoint,
  proposeTrim,
  type Raster,
  resample,
  straightenFrame,
  turnFrame,
  wholeFrame,
} from "./index.ts";

const LETTER = drawSvg(
  40,
  '<path d="M8 6h8v20h16v8H8Z" fill="#14304f"/><rect x="30" y="2" width="8" height="5" fill="#d8412f"/>',
);

const pixel = ({ width, data }: Raster, x: number, y: number) => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];

describe("turns, flips and crops", () => {
  it("move pixels without touching them: four quarters, or two flips, give the picture back byte for byte", () => {
    const whole = wholeFrame(40, 40);
    let turned = cropFrame(whole, { x: 0, y: 0, width: 40, height: 30 });
    if (!turned) throw new Error("no frame");
    const cropped = resample(LETTER, turned);
    expect([cropped.width, cropped.height]).toEqual([40, 30]);
    for (let i = 0; i < 4; i++) turned = turnFrame(turned, 1);
    expect(resample(LETTER, turned).data).toEqual(cropped.data);
    expect(resample(LETTER, flipFrame(flipFrame(whole, "left-right"), "left-right"))).toBe(LETTER);
  });

  it("go the way they say: clockwise, and left for right", () => {
    const turned = resample(LETTER, turnFrame(wholeFrame(40, 40), 1));
    // The red block of the top right goes to the bottom right.
    expect(pixel(turned, 35, 33)).toEqual([216, 65, 47, 255]);
    expect(pixel(resample(LETTER, flipFrame(wholeFrame(40, 40), "left-right")), 4, 4)).toEqual([216, 65, 47, 255]);
    expect(pixel(resample(LETTER, flipFrame(wholeFrame(40, 40), "top-bottom")), 33, 35)).toEqual([216, 65, 47, 255]);
  });

  it("a crop outside the picture is none", () => {
    expect(cropFrame(wholeFrame(40, 40), { x: 50, y: 0, width: 10, height: 10 })).toBeNull();
  });
});

describe("straightening", () => {
  it("turns a drawing back to what a renderer draws upright, in one resampling", () => {
    const content =
      '<rect x="60" y="80" width="80" height="40" fill="#d8412f"/><circle cx="100" cy="60" r="22" fill="#14304f"/>';
    const crooked = drawSvg(200, `<g transform="rotate(-7.3 100 100)">${content}</g>`);
    const upright = drawSvg(200, content);
    const frame = straightenFrame(wholeFrame(200, 200), 7.3);
    const margin = (frame.width - 200) / 2;
    const straight = resample(crooked, frame);
    let off = 0;
    for (let y = 30; y < 170; y++)
      for (let x = 30; x < 170; x++) {
        const a = pixel(straight, x + Math.floor(margin), y + Math.floor(margin));
        const b = pixel(upright, x, y);
        if (Math.max(...a.map((v, c) => Math.abs(v - b[c]))) > 128) off++;
      }
    // A tilt of a tenth of a degree, or a shift of half a pixel, would put over a hundred edge pixels off.
    expect(off).toBeLessThan(12);
  });

  it("never makes a colour that is not between those around it", () => {
    const crooked = resample(LETTER, straightenFrame(wholeFrame(40, 40), 11));
    for (let i = 0; i < crooked.data.length; i += 4)
      if (crooked.data[i + 3] === 255) expect(crooked.data[i + 1]).toBeGreaterThanOrEqual(48);
  });
});

describe("keystone", () => {
  it("lays a photographed sheet flat: its corners become the picture's, its middle the crossing of its diagonals", () => {
    const corners: Corners = [
      { x: 30, y: 20 },
      { x: 170, y: 40 },
      { x: 190, y: 160 },
      { x: 10, y: 180 },
    ];
    const frame = keystoneFrame(wholeFrame(200, 200), corners, 1.5);
    if (!frame) throw new Error("no frame");
    expect(frame.width / frame.height).toBeCloseTo(1.5, 1);
    const ends = [
      [0, 0],
      [frame.width, 0],
      [frame.width, frame.height],
      [0, frame.height],
    ];
    ends.forEach(([x, y], i) => {
      const at = mapPoint(frame.toSource, { x, y });
      expect(at.x).toBeCloseTo(corners[i].x, 6);
      expect(at.y).toBeCloseTo(corners[i].y, 6);
    });
    const [p, q, r, s] = corners;
    const middle = mapPoint(frame.toSource, { x: frame.width / 2, y: frame.height / 2 });
    const side = (a: typeof p, b: typeof p) => (b.x - a.x) * (middle.y - a.y) - (b.y - a.y) * (middle.x - a.x);
    expect(side(p, r)).toBeCloseTo(0, 6);
    expect(side(q, s)).toBeCloseTo(0, 6);
  });

  it("corners that cross are refused", () => {
    const [a, b, c, d] = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 10, y: 10 },
      { x: 0, y: 10 },
    ];
    expect(keystoneFrame(wholeFrame(20, 20), [a, c, b, d], null)).toBeNull();
  });

  it("any chain of maps leads there and back", () => {
    fc.assert(
      fc.property(fc.double({ min: -40, max: 40, noNaN: true }), fc.integer({ min: 1, max: 3 }), (angle, quarters) => {
        const frame = turnFrame(straightenFrame(wholeFrame(90, 60), angle), quarters as 1 | 2 | 3);
        const map = composeMaps(invertMap(frame.toSource), frame.toSource);
        const { x, y } = mapPoint(map, { x: 17, y: 23 });
        expect(x).toBeCloseTo(17, 6);
        expect(y).toBeCloseTo(23, 6);
      }),
    );
  });
});

/** A scan: a sheet turned by `angle` on a grey lid, a drawing on it, grain, a shadow along the sheet's right side. */
function scan(angle: number, shadow: number, grain: number): Raster {
  const [w, h] = [700, 560];
  const sheet = { x: 60, y: 50, width: 560, height: 450 };
  const t = (angle * Math.PI) / 180;
  const [sin, cos] = [Math.sin(t), Math.cos(t)];
  let seed = 7;
  const random = () => {
    seed = (Math.imul(seed, 1664525) + 1013904223) >>> 0;
    return seed / 4294967296;
  };
  const level = (x: number, y: number) => {
    // Back into the sheet's own, level coordinates, turned about the middle of the scan.
    const u = cos * (x - w / 2) + sin * (y - h / 2) + w / 2;
    const v = -sin * (x - w / 2) + cos * (y - h / 2) + h / 2;
    const inX = Math.min(u - sheet.x, sheet.x + sheet.width - u);
    const inY = Math.min(v - sheet.y, sheet.y + sheet.height - v);
    const share = Math.min(1, Math.max(0, Math.min(inX, inY) + 0.5));
    const toRight = sheet.x + sheet.width - u;
    const shade = shadow > 0 && toRight < shadow ? 0.75 + (0.25 * Math.max(0, toRight)) / shadow : 1;
    const isInk =
      Math.abs(Math.sqrt((u - 300) ** 2 + (v - 260) ** 2) - 120) < 9 || (u > 480 && u < 590 && v > 200 && v < 212);
    return (isInk ? 50 : 244 * shade) * share + 128 * (1 - share);
  };
  return paint(w, h, (x, y) => {
    const g = level(x + 0.5, y + 0.5) + (random() - 0.5) * 2 * grain;
    const byte = Math.min(255, Math.max(0, Math.round(g)));
    return [byte, byte, byte];
  });
}

describe("trim the scan", () => {
  it.each([
    [1.7, 0, 3],
    [-3.4, 16, 4],
    [8.2, 10, 2],
    [0, 12, 3],
  ])("a sheet that lies %s degrees crooked, with a shadow of %s px", (angle, shadow, grain) => {
    const proposal = proposeTrim(scan(angle, shadow, grain));
    if (!proposal) throw new Error("nothing proposed");
    expect(Math.abs(proposal.angleDeg + angle)).toBeLessThanOrEqual(0.1);
    expect(proposal.leanDeg).toBeLessThan(0.5);
    // Straightening turns about the middle, where the sheet lies as it was made.
    const frame = straightenFrame(wholeFrame(700, 560), proposal.angleDeg);
    const [dx, dy] = [(frame.width - 700) / 2, (frame.height - 560) / 2];
    const { crop } = proposal;
    const sides = [crop.x - dx, crop.y - dy, crop.x + crop.width - dx, crop.y + crop.height - dy];
    // The shadow is under 2 % of the paper from an eighth of its own width.
    const truth = [60, 50, 620 - shadow * 0.9, 500];
    sides.forEach((side, i) => {
      expect(Math.abs(side - truth[i])).toBeLessThanOrEqual(2);
    });
  });

  it("gives the four corners of a photographed sheet, and says that it leans", () => {
    const corners = [
      [90, 60],
      [610, 95],
      [650, 500],
      [50, 470],
    ];
    const svg = `<rect width="700" height="700" fill="#6b7076"/><path d="M${corners.join("L")}Z" fill="#f2f0ea"/><circle cx="340" cy="280" r="90" fill="#14304f"/>`;
    const proposal = proposeTrim(drawSvg(700, svg));
    expect(proposal?.leanDeg).toBeGreaterThan(1);
    proposal?.corners?.forEach(({ x, y }, i) => {
      expect(Math.abs(x - corners[i][0])).toBeLessThan(2);
      expect(Math.abs(y - corners[i][1])).toBeLessThan(2);
    });
    expect(proposal?.corners).not.toBeNull();
  });

  it("proposes nothing where paper fills the scan", () => {
    expect(proposeTrim(drawSvg(300, '<circle cx="150" cy="150" r="80" fill="#14304f"/>'))).toBeNull();
  });
});
