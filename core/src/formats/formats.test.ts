import { PDFDict, PDFDocument, PDFName } from "pdf-lib";
import { describe, expect, it } from "vitest";
import { writeSeparationsPdf, writeSeparationsSvg } from "../screens/index.ts";
import { drawSvg, renderSvg, traceRaster } from "../testing/pictures.test.support.ts";
import { circleRegion, oneSpotSeparation } from "../testing/separation.test.support.ts";
import { layShapes, writeShapesSvg } from "./index.ts";

const DATE = new Date("2026-11-25T00:00:00Z");

describe("separations.pdf", () => {
  it.each(["Harbour blue", "Rød #3 (50%)", "金", "A/B [c]"])(
    "carries the name %s whole, as ISO 32000-1, 7.3.5 writes names",
    async (name) => {
      const separation = oneSpotSeparation(60, 40, circleRegion(30, 20, 15));
      const named = { ...separation, plates: separation.plates.map((plate) => ({ ...plate, name })) };
      const pdf = await PDFDocument.load(await writeSeparationsPdf(named, DATE));
      const spaces = pdf.getPage(0).node.Resources()?.lookup(PDFName.of("ColorSpace"), PDFDict);
      const space = spaces?.lookup(PDFName.of("S0"));
      const written = String(space).match(/\/Separation (\/\S+)/)?.[1] ?? "";
      const bytes = written.slice(1).replace(/#([0-9A-F]{2})/g, "%$1");
      expect(decodeURIComponent(bytes)).toBe(name);
    },
  );
  it("is the same bytes for the same separation and date", async () => {
    const separation = oneSpotSeparation(60, 40, circleRegion(30, 20, 15));
    expect(await writeSeparationsPdf(separation, DATE)).toEqual(await writeSeparationsPdf(separation, DATE));
  });
});

describe("SVG", () => {
  it("is well formed whatever a spot is called, and draws (resvg) what the plate covers", () => {
    const separation = oneSpotSeparation(100, 80, circleRegion(50, 40, 30));
    const named = {
      ...separation,
      plates: separation.plates.map((plate) => ({ ...plate, name: 'Blue & "gold" <2>' })),
    };
    const svg = writeSeparationsSvg(named);
    expect(svg).not.toContain('"gold"');
    const drawn = renderSvg(svg.replace(/width="[^"]*" height="[^"]*"/, 'width="400" height="320"'));
    let ink = 0;
    for (let i = 3; i < drawn.data.length; i += 4) ink += drawn.data[i] / 255;
    expect(ink / (drawn.width * drawn.height)).toBeCloseTo(separation.plates[0].coverage, 3);
  });
  it("puts the curves where the source has them: redrawn at its size, hardly a pixel changes colour", () => {
    const source = drawSvg(
      200,
      '<circle cx="80" cy="90" r="60" fill="#d8412f"/><path d="M30 30L180 80L110 190Z" fill="#14304f"/>',
    );
    const { map, reduction } = traceRaster(source);
    const svg = writeShapesSvg(layShapes(map, reduction.spots, 1)).replace(
      /width="[^"]*" height="[^"]*"/,
      'width="200" height="200"',
    );
    const drawn = renderSvg(svg);
    let off = 0;
    for (let i = 0; i < source.data.length; i += 4)
      if (Math.abs(source.data[i] - drawn.data[i]) + Math.abs(source.data[i + 2] - drawn.data[i + 2]) > 240) off++;
    // Edges are about 900 pixels long; without anti-aliasing a pixel on them is off by at most half its contrast.
    expect(off).toBeLessThan(20);
  });
});
