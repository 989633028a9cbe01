// The shelf as CxF3 (ISO 17972-1), the graphic arts' exchange format for colours. Written from memory of the standard: its
// objects with CIELAB or sRGB values, their specification, and tags for what it has no element for.
import { FACT_WORDS, factsOf, readFacts, type Stock, type StockKind } from "../shelf/index.ts";
import { readXml } from "../xml/index.ts";
import { escapeXml } from "./shapes-svg.ts";
import { type StockFile, startReading } from "./stock-file.ts";

const NAMESPACE = "http://colorexchangeformat.com/CxF3-core";

/** Text of a CxF3 file. `date` is written into it, ISO 8601. */
export function writeCxf3(shelf: readonly Stock[], date: string): string {
  const objects = shelf.map(({ kind, code, name, colour, detail, ...known }, i) => {
    const values =
      colour.space === "srgb"
        ? `<cc:ColorSRGB ColorSpecification="screen">${channels(colour.hex)}</cc:ColorSRGB>`
        : `<cc:ColorCIELab ColorSpecification="measured"><cc:L>${colour.l}</cc:L><cc:A>${colour.a}</cc:A><cc:B>${colour.b}</cc:B></cc:ColorCIELab>`;
    const facts = factsOf(known).flatMap((value, k) => (value === null ? [] : [[FACT_WORDS[k], `${value}`]]));
    const tags = [["Kind", kind], ["Code", code], ...(detail ? [["Detail", detail]] : []), ...facts]
      .map(([tag, value]) => `<cc:Tag Name="${tag}" Value="${escapeXml(value)}"/>`)
      .join("");
    return (
      `      <cc:Object ObjectType="Standard" Name="${escapeXml(name)}" Id="s${i + 1}">\n        <cc:CreationDate>${date}</cc:CreationDate>\n` +
      `        <cc:ColorValues>${values}</cc:ColorValues>\n        <cc:TagCollection>${tags}</cc:TagCollection>\n      </cc:Object>\n`
    );
  });
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<cc:CxF xmlns:cc="${NAMESPACE}">\n` +
    `  <cc:FileInformation>\n    <cc:Creator>Plain Palette</cc:Creator>\n    <cc:CreationDate>${date}</cc:CreationDate>\n    <cc:Description>Shelf</cc:Description>\n  </cc:FileInformation>\n` +
    `  <cc:Resources>\n    <cc:ObjectCollection>\n${objects.join("")}    </cc:ObjectCollection>\n    <cc:ColorSpecificationCollection>\n` +
    '      <cc:ColorSpecification Id="measured"><cc:TristimulusSpec><cc:Illuminant>D50</cc:Illuminant><cc:Observer>2_Degree</cc:Observer><cc:Method>E308_1nm</cc:Method></cc:TristimulusSpec></cc:ColorSpecification>\n' +
    '      <cc:ColorSpecification Id="screen"><cc:TristimulusSpec><cc:Illuminant>D65</cc:Illuminant><cc:Observer>2_Degree</cc:Observer><cc:Method>E308_1nm</cc:Method></cc:TristimulusSpec></cc:ColorSpecification>\n' +
    "    </cc:ColorSpecificationCollection>\n  </cc:Resources>\n</cc:CxF>\n"
  );
}

function channels(hex: string): string {
  const value = Number.parseInt(hex.slice(1), 16);
  return `<cc:R>${value >> 16}</cc:R><cc:G>${(value >> 8) & 255}</cc:G><cc:B>${value & 255}</cc:B>`;
}

/** Deepest nesting of a file that is read; the standard's own has ten. */
const MOST_DEEP = 40;

/** An object under way. */
interface Draft {
  readonly line: number;
  readonly name: string;
  readonly id: string;
  readonly tags: Map<string, string>;
  /** Values by space and channel. */
  readonly numbers: Map<string, number>;
  /** Where both are given, what was measured counts. */
  space: "lab" | "srgb" | null;
  /** The values that are being read. */
  within: "lab" | "srgb" | null;
}

/**
 * Reads a CxF3 file: every object with CIELAB or sRGB values. Objects without a tag for their kind are of `kind`; without
 * one for their code, their Id is it. The parser knows no entities beyond XML's own and fetches nothing.
 */
export function readCxf3(text: string, kind: StockKind): StockFile {
  const reading = startReading();
  let draft: Draft | null = null;
  let characters = "";
  let isCxf = false;
  const finish = ({ line, name, id, tags, numbers, space }: Draft) => {
    const value = (channel: string) => numbers.get(`${space} ${channel}`) ?? Number.NaN;
    const colour =
      space === "lab"
        ? { space, l: value("L"), a: value("A"), b: value("B") }
        : { space: "srgb", hex: hexOf(value("R"), value("G"), value("B")) };
    if (space === null) reading.fail(line, `"${name}" has neither CIELAB nor sRGB values`);
    else
      reading.take(
        line,
        {
          kind: tags.get("Kind") ?? kind,
          code: tags.get("Code") ?? id,
          name,
          colour,
          detail: tags.get("Detail") ?? "",
          ...readFacts((word) => tags.get(word)),
        },
        `"${name}", `,
      );
  };
  readXml(
    text.replace(/^\uFEFF/, ""),
    {
      open({ local, uri, attributes }, line) {
        characters = "";
        if (uri !== NAMESPACE) return;
        const attribute = (name: string) => attributes[name] ?? "";
        if (local === "CxF") isCxf = true;
        else if (local === "Object")
          draft = {
            ...{ line, name: attribute("Name"), id: attribute("Id") },
            ...{ tags: new Map(), numbers: new Map(), space: null, within: null },
          };
        else if (draft && local === "Tag") draft.tags.set(attribute("Name"), attribute("Value"));
        else if (draft && local === "ColorCIELab") draft.space = draft.within = "lab";
        else if (draft && local === "ColorSRGB") {
          draft.within = "srgb";
          draft.space ??= "srgb";
        }
      },
      text(part) {
        characters += part;
      },
      close({ local, uri }) {
        if (uri !== NAMESPACE || !draft) return;
        if (local === "ColorCIELab" || local === "ColorSRGB") draft.within = null;
        if (/^[LABRG]$/.test(local) && draft.within)
          draft.numbers.set(`${draft.within} ${local}`, Number(characters.trim() || "NaN"));
        if (local === "Object") {
          finish(draft);
          draft = null;
        }
      },
      wrong: (message, line) => reading.fail(line, message),
      tooDeep: (line) => reading.fail(line, `elements are nested more than ${MOST_DEEP} deep`),
    },
    { hasNamespaces: true, mostDeep: MOST_DEEP },
  );
  if (!isCxf && !reading.hasFailed()) reading.fail(1, "this is not a CxF3 file");
  return reading.finish();
}

function hexOf(r: number, g: number, b: number): string {
  return [r, g, b].every((v) => Number.isInteger(v) && v >= 0 && v <= 255)
    ? `#${((r << 16) | (g << 8) | b).toString(16).padStart(6, "0")}`
    : "not whole numbers from 0 to 255";
}
