// In which formats what is cut is given out.
import { CUT_FORMATS, type CutFormat } from "@plain-palette/core/cut";
import { CheckField } from "../parts/fields.tsx";

const WORDS: Readonly<Record<CutFormat, string>> = { svg: "SVG", dxf: "DXF", hpgl: "HPGL (.plt)" };

interface Props {
  readonly formats: readonly CutFormat[];
  onChange(formats: CutFormat[]): void;
}

export function CutFormatFields({ formats, onChange }: Props) {
  return CUT_FORMATS.map((format) => (
    <CheckField
      key={format}
      label={WORDS[format]}
      isOn={formats.includes(format)}
      onChange={(isOn) => onChange(CUT_FORMATS.filter((one) => (one === format ? isOn : formats.includes(one))))}
    />
  ));
}
