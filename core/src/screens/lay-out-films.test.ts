import { describe, expect, it } from "vitest";
import { circleRegion, oneSpotSeparation } from "../testing/separation.test.support.ts";
import { type FilmSettings, layOutFilms, MARKS } from "./index.ts";

const FACTS = { job: "7 Crew shirts", client: "Tern Island Ferry", date: "2026-11-25" };
const PLAIN: FilmSettings = { sheetMm: null, isMirrored: false, hasMarks: true, hasLabels: true };

describe("the sheet of films", () => {
  it("grows to hold the art with its marks, never cutting it", () => {
    const separation = oneSpotSeparation(200, 300, circleRegion(100, 150, 90));
    for (const sheetMm of [null, { width: 210, height: 297 }, { width: 100, height: 100 }]) {
      const set = layOutFilms(separation, { ...PLAIN, sheetMm }, FACTS);
      const { art, sheet } = set;
      for (const { x, y } of set.targets) {
        expect(x - MARKS.targetArm).toBeGreaterThanOrEqual(0);
        expect(x + MARKS.targetArm).toBeLessThanOrEqual(sheet.width);
        expect(y - MARKS.targetArm).toBeGreaterThanOrEqual(0);
        expect(y + MARKS.targetArm).toBeLessThanOrEqual(sheet.height);
        const isInArt =
          x > art.x - MARKS.targetArm &&
          x < art.x + art.width + MARKS.targetArm &&
          y > art.y - MARKS.targetArm &&
          y < art.y + art.height + MARKS.targetArm;
        expect(isInArt).toBe(false);
      }
      expect(art.x).toBeGreaterThanOrEqual(0);
      expect(art.x + art.width).toBeLessThanOrEqual(sheet.width);
      expect(set.hasGrown).toBe(sheetMm !== null);
    }
  });

  it("takes a stock sheet as it is, turned where only that fits", () => {
    const separation = oneSpotSeparation(300, 150, circleRegion(150, 75, 60));
    const set = layOutFilms(separation, { ...PLAIN, sheetMm: { width: 297, height: 420 } }, FACTS);
    expect(set.sheet).toEqual({ width: 420, height: 297 });
    expect(set.hasGrown).toBe(false);
  });

  it("labels every film with job, client, colour, order, size and date", () => {
    const set = layOutFilms(oneSpotSeparation(200, 100, circleRegion(50, 50, 40)), PLAIN, FACTS);
    const label = set.films[0].label.join("\n");
    for (const part of ["7 Crew shirts", "Tern Island Ferry", "Plate 1 of 1: Navy", "200.0 x 100.0 mm", "2026-11-25"])
      expect(label).toContain(part);
  });
});
