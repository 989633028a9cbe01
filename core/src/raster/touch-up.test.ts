import polygonClipping from "polygon-clipping";
import { describe, expect, it } from "vitest";
import { ciede2000, rgbToLab } from "../colour/index.ts";
import { drawSvg, renderSvg } from "../testing/pictures.test.support.ts";
import {
  coverPolygon,
  coverStroke,
  eraseCover,
  fillSilhouette,
  fillSpecks,
  findSpecks,
  mapDifference,
  moveCover,
  paintCover,
  restoreCover,
} from "./index.ts";

const ART = drawSvg(
  100,
  '<rect x="20" y="20" width="60" height="60" fill="#d8412f"/><circle cx="50" cy="50" r="12" fill="#14304f"/>',
);
const sum = (data: ArrayLike<number>) => {
  let total = 0;
  for (let i = 0; i < data.length; i++) total += data[i] / 255;
  return total;
};
const alpha = (data: Uint8ClampedArray) => data.filter((_, i) => i % 4 === 3);

function present<T>(value: T | null): T {
  if (value === null) throw new Error("nothing there");
  return value;
}

describe("strokes", () => {
  it("cover a round-ended line's area, whatever its width", () => {
    for (const radius of [0.5, 2, 11.5]) {
      const cover = present(coverStroke([20, 30, 70, 55], radius, 100, 100));
      const length = Math.sqrt(50 * 50 + 25 * 25);
      const area = Math.PI * radius * radius + 2 * radius * length;
      expect(Math.abs(sum(cover.data) / area - 1)).toBeLessThan(0.02);
    }
    expect(coverStroke([-50, -50, -20, -20], 5, 100, 100)).toBeNull();
  });

  it("erase, then restore, gives the picture back byte for byte", () => {
    const cover = present(coverStroke([10, 10, 90, 90], 8, 100, 100));
    const erased = eraseCover(ART, cover);
    expect(sum(alpha(erased.data))).toBeLessThan(100 * 100 - 1500);
    const wide = present(coverStroke([10, 10, 90, 90], 12, 100, 100));
    expect(restoreCover(erased, ART, wide).data).toEqual(ART.data);
  });

  it("paint leaves no seam: a soft edge is a mixture of paint and picture", () => {
    const painted = paintCover(ART, [242, 177, 52], present(coverStroke([50, 10, 50, 10], 6, 100, 100)));
    expect([...painted.data.subarray((10 * 100 + 50) * 4, (10 * 100 + 50) * 4 + 4)]).toEqual([242, 177, 52, 255]);
    expect(sum(alpha(painted.data))).toBe(100 * 100);
  });
});

describe("moving a piece", () => {
  it("a lasso covers what polygon-clipping says lies in it and the picture", () => {
    const lasso: [number, number][] = [
      [-10, 20],
      [60, -5],
      [95, 60],
      [40, 45],
      [20, 120],
    ];
    const inside = polygonClipping.intersection(
      [lasso],
      [
        [
          [0, 0],
          [100, 0],
          [100, 100],
          [0, 100],
        ],
      ],
    );
    const area = inside.reduce((total, [ring]) => {
      let twice = 0;
      for (let i = 0; i + 1 < ring.length; i++) twice += ring[i][0] * ring[i + 1][1] - ring[i + 1][0] * ring[i][1];
      return total + Math.abs(twice) / 2;
    }, 0);
    expect(Math.abs(sum(present(coverPolygon(lasso.flat(), 100, 100)).data) - area)).toBeLessThan(area * 0.002);
  });

  it("lays it elsewhere whole, and back again as it was", () => {
    const dot = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><circle cx="30" cy="30" r="10.5" fill="#14304f"/></svg>',
    );
    const box = (x: number) => present(coverPolygon([x, 15, x + 30, 15, x + 30, 45, x, 45], 100, 100));
    const moved = moveCover(dot, box(15), 50, 40);
    expect(moved.data[(70 * 100 + 80) * 4 + 3]).toBe(255);
    expect(moved.data[(30 * 100 + 30) * 4 + 3]).toBe(0);
    const back = moveCover(moved, present(coverPolygon([65, 55, 95, 55, 95, 85, 65, 85], 100, 100)), -50, -40);
    expect(back.data).toEqual(dot.data);
  });
});

describe("specks and pinholes", () => {
  // 5 dark specks on light, 4 light ones in dark, a dot of 9 px across that is meant, and three pinholes.
  const dirt = [
    [8, 8],
    [20, 70],
    [90, 12],
    [60, 90],
    [92, 60],
  ];
  const flaws = [
    [34, 36],
    [44, 60],
    [60, 34],
    [66, 62],
  ];
  const dot =
    (r: number, fill: string) =>
    ([x, y]: number[]) =>
      `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}"/>`;
  const clean =
    '<rect x="25" y="25" width="50" height="50" fill="#14304f"/><circle cx="12" cy="45" r="4.5" fill="#14304f"/>';
  const dirty = drawSvg(100, clean + dirt.map(dot(1.2, "#222222")).join("") + flaws.map(dot(1.1, "#ffffff")).join(""));
  const both = { maxPx: 12, dark: true, light: true, holes: false };

  it("are counted, dark in light and light in dark, each kind by itself if asked", () => {
    expect(findSpecks(dirty, both).count).toBe(9);
    expect(findSpecks(dirty, { ...both, light: false }).count).toBe(5);
    expect(findSpecks(dirty, { ...both, dark: false }).count).toBe(4);
    expect(findSpecks(dirty, { ...both, maxPx: 2 }).count).toBe(0);
  });

  it("go without a trace, and nothing else changes", () => {
    expect(fillSpecks(dirty, findSpecks(dirty, both)).data).toEqual(drawSvg(100, clean).data);
  });

  it("pinholes are filled with the colour around them", () => {
    const holed = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="60"><path fill-rule="evenodd" d="M5 5h50v50h-50ZM20 20h3v3h-3ZM40 30h2v2h-2Z" fill="#d8412f"/></svg>',
    );
    const holes = findSpecks(holed, { maxPx: 20, dark: false, light: false, holes: true });
    expect(holes.count).toBe(2);
    const filled = fillSpecks(holed, holes);
    expect([...filled.data.subarray((21 * 60 + 21) * 4, (21 * 60 + 21) * 4 + 4)]).toEqual([216, 65, 47, 255]);
    expect(sum(alpha(filled.data))).toBe(2500);
  });
});

describe("the silhouette", () => {
  it("is one colour and as large as the design", () => {
    const art = renderSvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="60"><circle cx="30" cy="30" r="20" fill="#d8412f"/><circle cx="30" cy="30" r="9" fill="#fff"/></svg>',
    );
    const { data } = fillSilhouette(art, [20, 48, 79]);
    expect(alpha(data)).toEqual(alpha(art.data));
    for (let i = 0; i < data.length; i += 4)
      if (data[i + 3] > 0) expect([data[i], data[i + 1], data[i + 2]]).toEqual([20, 48, 79]);
  });
});

describe("the difference map", () => {
  it("is CIEDE2000 on the garment, nothing where nothing changed", () => {
    const changed = eraseCover(ART, present(coverPolygon([40, 40, 60, 40, 60, 60, 40, 60], 100, 100)));
    const map = mapDifference(ART, changed, [29, 42, 68]);
    expect(map[10 * 100 + 10]).toBe(0);
    const expected = Math.round(ciede2000(rgbToLab([20, 48, 79]), rgbToLab([29, 42, 68])));
    expect(map[50 * 100 + 50]).toBe(expected);
  });
});
