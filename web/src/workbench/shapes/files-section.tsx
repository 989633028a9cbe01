// The shapes as files, for programs and machines that take over from here.
import { SHAPE_FORMATS, type ShapeFormat, type Stacking } from "@plain-palette/core/formats";
import { useState } from "react";
import { type Ask, type Computed, isCurrent } from "../../compute/use-compute.ts";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { Choice } from "../../parts/choice.tsx";
import { CheckField } from "../../parts/fields.tsx";
import { Fact, Group } from "../panel.tsx";

const WHAT: Readonly<Record<ShapeFormat, string>> = {
  svg: "Curves as they are, one group for each colour. Browsers and drawing programs.",
  pdf: "Curves as they are, each colour an ink of its own. Print shops.",
  eps: "Curves as they are, each colour an ink of its own. Older print software.",
  dxf: "Lines and arcs in millimetres, one layer for each colour (release 12). Cutters.",
};

interface Props {
  readonly computed: Computed;
  readonly ask: Ask;
  readonly mmPerPx: number;
}

export function FilesSection({ computed, ask, mmPerPx }: Props) {
  const [format, setFormat] = useState<ShapeFormat>("svg");
  const [stacking, setStacking] = useState<Stacking>("abutting");
  const [isPerColour, setPerColour] = useState(false);
  const recipe = useJob((state) => state.recipe);
  const [isSaving, setSaving] = useState(false);
  const frame = computed.prepared?.frame;
  const save = async () => {
    setSaving(true);
    const file = await ask("shapes", { recipe, format, stacking, isPerColour });
    setSaving(false);
    if (!file) return;
    const link = document.createElement("a");
    link.href = URL.createObjectURL(new Blob([file.bytes]));
    link.download = file.name;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <Group title="Shapes as a file">
      <Choice
        label="Format"
        value={format}
        options={SHAPE_FORMATS.map((value) => ({ value, text: value.toUpperCase() }))}
        onChange={(value: ShapeFormat) => setFormat(value)}
      />
      <p className="py-1 text-xs text-soft">{WHAT[format]}</p>
      <Choice
        label="Neighbours"
        value={stacking}
        options={[
          { value: "abutting", text: "Abutting" },
          { value: "stacked", text: "Stacked" },
        ]}
        onChange={(value: Stacking) => setStacking(value)}
      />
      <p className="py-1 text-xs text-soft">
        {stacking === "abutting"
          ? "Neighbours meet at their shared boundary."
          : "Each colour is solid under what is laid on it, in print order."}
      </p>
      <CheckField
        label="One file for each colour"
        hint="All on the same page, so that they register; together in a ZIP"
        isOn={isPerColour}
        onChange={setPerColour}
      />
      {frame && (
        <dl className="pb-2">
          <Fact label="Page">
            {(frame.width * mmPerPx).toFixed(1)} × {(frame.height * mmPerPx).toFixed(1)} mm
          </Fact>
        </dl>
      )}
      <Button
        className="w-full"
        onClick={() => void save()}
        disabled={isSaving || !isCurrent(computed) || !computed.traced || computed.traced.counts.shapes === 0}
      >
        Save the file
      </Button>
    </Group>
  );
}
