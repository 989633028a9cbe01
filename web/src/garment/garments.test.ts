import type { ShopStock } from "@plain-palette/contract";
import { expect, it } from "vitest";
import { garmentsOf } from "./garments.ts";

const stock = (kind: ShopStock["kind"], code: string, hex: string): ShopStock => ({
  id: "00000000-0000-4000-8000-000000000000",
  version: 1,
  kind,
  code,
  name: "Night navy",
  colour: { space: "srgb", hex },
  detail: "",
  film: null,
  stones: null,
});

it("garments are named by code and name, with their colour in digits; inks are none", () => {
  const garments = garmentsOf([stock("ink", "Q-1", "#d8412f"), stock("garment", "G-21", "#1D2A44")]);
  expect(garments.map(({ label, hex }) => [label, hex])).toEqual([["G-21 Night navy", "#1d2a44"]]);
});
