// Printed film: what is printed, how far round it the blade goes.
import { TRANSFER_LIMITS, type TransferSettings } from "@plain-palette/core/transfer";
import { Choice } from "../../parts/choice.tsx";
import { MmField } from "../../parts/fields.tsx";
import { Group } from "../panel.tsx";

interface Props {
  readonly printed: TransferSettings["printed"];
  onChange(part: Partial<TransferSettings["printed"]>): void;
}

const ART = [
  { value: "shapes", text: "Shapes", title: "Its clean shapes, flat colours" },
  { value: "picture", text: "Picture", title: "The picture with all its shades" },
] as const;

export function PrintedSettings({ printed, onChange }: Props) {
  return (
    <Group title="Printed and cut round">
      <div className="py-1">
        <Choice label="What is printed" value={printed.art} options={ART} onChange={(art) => onChange({ art })} />
      </div>
      <MmField
        label="Cut away from the art"
        valueMm={printed.distanceMm}
        {...TRANSFER_LIMITS.distanceMm}
        onChange={(distanceMm) => onChange({ distanceMm })}
      />
      <MmField
        label="Close holes under"
        valueMm={printed.closesHolesMm}
        {...TRANSFER_LIMITS.closesHolesMm}
        hint="Of the cut line; wider ones are cut out and weeded"
        onChange={(closesHolesMm) => onChange({ closesHolesMm })}
      />
      <MmField
        label="Bleed"
        valueMm={printed.bleedMm}
        {...TRANSFER_LIMITS.bleedMm}
        hint="Colour beyond the art's outline, for cuts along it"
        onChange={(bleedMm) => onChange({ bleedMm })}
      />
    </Group>
  );
}
