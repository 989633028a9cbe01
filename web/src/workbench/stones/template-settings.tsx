// Template files: formats, one for all or for each size or colour, and from which side they are cut.
import { HOLE_MM, type StoneSettings, stones, type TemplateSplit } from "@plain-palette/core/stone";
import { Link } from "react-router";
import { useJob } from "../../job/use-job.ts";
import { Choice } from "../../parts/choice.tsx";
import { CutFormatFields } from "../cut-format-fields.tsx";
import { Fact, Group } from "../panel.tsx";

export function TemplateSettings({ jobId }: { jobId: string }) {
  const settings = useJob((state) => stones.settingsIn(state.recipe));
  const edit = useJob((state) => state.edit);
  const { template } = settings;
  const { formats, split, isMirrored } = template;
  const set = (part: Partial<StoneSettings["template"]>) =>
    edit((r) => stones.withSettings(r, { template: { ...template, ...part } }));
  return (
    <Group title="Templates">
      <CutFormatFields formats={formats} onChange={(next) => set({ formats: next })} />
      <div className="py-1">
        <Choice<TemplateSplit>
          label="Templates"
          value={split}
          options={[
            { value: "one", text: "One" },
            { value: "sizes", text: "Each size" },
            { value: "colours", text: "Each colour" },
          ]}
          onChange={(value) => set({ split: value })}
        />
      </div>
      <div className="py-1">
        <Choice
          label="Reading"
          value={isMirrored ? "mirrored" : "right"}
          options={[
            { value: "right", text: "Right-reading" },
            { value: "mirrored", text: "Mirrored", title: "Cut from the back of the template" },
          ]}
          onChange={(value) => set({ isMirrored: value === "mirrored" })}
        />
      </div>
      <dl>
        <Fact label="Holes">stone + {HOLE_MM} mm</Fact>
        <Fact label="stones.csv">every stone with its place</Fact>
        <Fact label="check-sheet.pdf">all at true size, with counts</Fact>
      </dl>
      <p className="pt-1 text-xs text-soft">
        Four holes outside the design lay templates on each other. The{" "}
        <Link className="underline" to={`/practice?job=${jobId}`}>
          practice bench
        </Link>{" "}
        sets what was made last.
      </p>
    </Group>
  );
}
