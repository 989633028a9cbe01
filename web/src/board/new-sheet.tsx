// A job that begins with nothing: an empty sheet of a size, for motifs and lettering.
import { type Length, toMm } from "@plain-palette/core/geometry";
import { MAX_PRINT_MM, MIN_PRINT_MM } from "@plain-palette/core/recipe";
import { useQueryClient } from "@tanstack/react-query";
import { Popover } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, uploadJob } from "../api/client.ts";
import { readAnew } from "../api/read-anew.ts";
import { Button } from "../parts/button.tsx";
import { LengthField } from "../parts/fields.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";

/** A sheet of film as it comes off the roll most often (common practice, no source). */
const FIRST_WIDTH: Length = { value: 280, unit: "mm" };
const FIRST_HEIGHT: Length = { value: 380, unit: "mm" };
/** Pixels of the longer side: as shapes of a full front are drawn. */
const LONG_SIDE = 2400;

export function NewSheet() {
  const [width, setWidth] = useState(FIRST_WIDTH);
  const [height, setHeight] = useState(FIRST_HEIGHT);
  const [problem, setProblem] = useState<ReturnType<typeof problemOf> | null>(null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const make = async () => {
    try {
      const id = await makeSheet(width, height);
      await readAnew(queries, ["jobs"]);
      navigate(`/jobs/${id}/shapes`);
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const limits = { min: MIN_PRINT_MM, max: MAX_PRINT_MM };
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button>Empty sheet</Button>
      </Popover.Trigger>
      <Popover.Portal container={document.getElementById("work")}>
        <Popover.Content
          aria-label="Empty sheet"
          align="end"
          sideOffset={6}
          className="z-10 w-72 border border-ink bg-sheet p-4"
        >
          <p className="pb-2 text-xs text-soft">
            For motifs and lettering: several on one sheet, as badges, or sleeve and front.
          </p>
          <LengthField label="Width" value={width} {...limits} onChange={setWidth} />
          <LengthField label="Height" value={height} {...limits} onChange={setHeight} />
          <Button look="next" className="mt-2 w-full" onClick={() => void make()}>
            Make the sheet
          </Button>
          {problem && <ProblemNote problem={problem} onClose={() => setProblem(null)} />}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A job of a clear picture of that size. Returns its id. */
async function makeSheet(width: Length, height: Length): Promise<string> {
  const [wide, high] = [toMm(width), toMm(height)];
  const scale = LONG_SIDE / Math.max(wide, high);
  const canvas = new OffscreenCanvas(Math.round(wide * scale), Math.round(high * scale));
  if (!canvas.getContext("2d")) throw new Error("the browser has no room for a sheet of that size");
  const words = `Sheet ${width.value} x ${height.value} ${height.unit}`;
  const file = new File([await canvas.convertToBlob({ type: "image/png" })], `${words}.png`);
  const job = await uploadJob({ file, onSending() {}, signal: new AbortController().signal });
  const recipe = { ...job.recipe, artwork: { ...job.recipe.artwork, width } };
  await api.saveRecipe(job.id, { basedOn: job.head, recipe });
  return job.id;
}
