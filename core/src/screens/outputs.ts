// The files of a job printed with screens.

import { warnOfMissing } from "../labels/index.ts";
import type { Output, OutputFacts } from "../output/index.ts";
import { writeFilmsPdf } from "./films-pdf.ts";
import { layOutFilms } from "./lay-out-films.ts";
import type { Separation } from "./separate.ts";
import { writeSeparationsPdf } from "./separations-pdf.ts";
import { writeSeparationsSvg } from "./separations-svg.ts";
import type { ScreensSettings } from "./settings.ts";

/** What is given out, and what a person should know of it. */
export function listScreensOutputs(
  separation: Separation,
  settings: ScreensSettings,
  { job, client, date, labelFont }: OutputFacts,
): { readonly outputs: readonly Output[]; readonly notes: readonly string[] } {
  const films = layOutFilms(separation, settings.films, { job, client, date: date.toISOString().slice(0, 10) });
  const missing = warnOfMissing(films.films.flatMap(({ label }) => label).join(""), labelFont);
  const count = films.films.length;
  return {
    outputs: [
      {
        name: "films.pdf",
        mediaType: "application/pdf",
        make: (tell) =>
          writeFilmsPdf(films, labelFont, date, (index) =>
            tell(index / count, `Drawing film ${index + 1} of ${count}`),
          ),
      },
      {
        name: "separations.pdf",
        mediaType: "application/pdf",
        make: async (tell) => {
          tell(0, "Writing separations");
          return writeSeparationsPdf(separation, date);
        },
      },
      {
        name: "separations.svg",
        mediaType: "image/svg+xml",
        make: async () => new TextEncoder().encode(writeSeparationsSvg(separation)),
      },
    ],
    notes: missing === null ? [] : [missing],
  };
}
