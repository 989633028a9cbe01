// A pretend process: stencils, a sheet for each ink, cut open where the ink goes. Loading this file adds it to core's.
import { formatHex } from "../colour/index.ts";
import { escapeXml, svgRoot } from "../formats/index.ts";
import { type CubicPath, pathToSvg } from "../geometry/index.ts";
import { addMaking } from "../makings/index.ts";
import { defineMaking, defineProcess, type Process } from "../process/index.ts";
import { addProcess } from "../processes/index.ts";
import { spotPaths } from "../trace/index.ts";
import { z } from "../zod/index.ts";

interface Settings {
  readonly marginMm: number;
  /** Spots that get a sheet; none: all. */
  readonly only: string[];
}

export interface Stencil {
  readonly id: string;
  readonly name: string;
  readonly hex: string;
  readonly openings: readonly CubicPath[];
}

export const stencils: Process<Settings, readonly Stencil[]> = defineProcess({
  id: "stencils",
  name: "Stencils",
  title: "Sheets",
  stock: "transfer-film",
  settings: z.object({ marginMm: z.number().min(0).max(50).default(10), only: z.array(z.string()).default([]) }),
  shellOptions: [
    { name: "margin", kind: "length", example: "10mm", min: 0, max: 50, set: (marginMm) => ({ marginMm }) },
    {
      name: "only",
      kind: "words",
      example: "SPOT-ID ...",
      takes: "ids of spots",
      isWord: (text) => /^[0-9a-f]{6}$/.test(text),
      set: (only) => ({ only: [...only] }),
    },
    { name: "no-margin", kind: "flag", set: () => ({ marginMm: 0 }) },
  ],
  writing: "stencils",
});

const stencilsMaking = defineMaking({
  process: stencils,
  steps: {
    cut: {
      doing: "Cutting stencils",
      weight: 2,
      part: "cut",
      from: [],
      reads: ({ design, settings }) => [design.spots, settings.only],
      compute: ({ design: { map, spots }, settings: { only } }): readonly Stencil[] =>
        spots
          .filter(({ id, role }) => role === "ink" && (only.length === 0 || only.includes(id)))
          .map(({ id, name, rgb }) => ({ id, name, hex: formatHex(rgb), openings: spotPaths(map, id) }))
          .filter(({ openings }) => openings.length > 0),
    },
  },
  result: "cut",
  report: ({ settings }, sheets) => ({
    facts: { stencils: { sheets: sheets.map(({ name }) => name), marginMm: settings.marginMm } },
    thin: [],
    warnings: sheets.length > 1 ? [{ text: `${sheets.length} sheets have to be laid on in turn.`, place: null }] : [],
  }),
  outputs: async ({ design }, sheets) => ({
    outputs: [
      {
        name: "stencils.svg",
        mediaType: "image/svg+xml",
        make: async () => {
          const { width, height } = design.map;
          const body = sheets.map(
            ({ name, hex, openings }) =>
              `<path data-sheet="${escapeXml(name)}" fill="${hex}" d="${openings.map((path) => pathToSvg(path, 3)).join("")}"/>`,
          );
          return new TextEncoder().encode(svgRoot(width, height, design.widthMm / width, body.join("\n"), ""));
        },
      },
    ],
    notes: [],
  }),
});
addProcess(stencils);
addMaking(stencilsMaking);
