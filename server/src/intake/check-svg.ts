// SVG is untrusted: no scripts, no external references, ever. The renderer would not follow them either; refusing says
// so to the person, whose picture would otherwise come out with parts missing. And no drawing that takes the renderer
// for good: what parts that are used again and again, groups and masks cost is reckoned before any of it is drawn.
import { readXml } from "@plain-palette/core/xml";
import { IntakeError } from "./intake-error.ts";
import { makeCostSheet, type SvgCost } from "./svg-cost.ts";

/** Deepest nesting of elements. */
const MOST_DEEP = 250;
/** Encodings in which every sign of markup is the byte that it is in ASCII: what is checked is what is drawn. */
const PLAIN_ENCODING = /^(utf-?8|us-ascii|ascii|iso-8859-\d{1,2}|windows-125\d|latin-?1)$/i;
const HARMLESS_PICTURE = /^data:image\/(png|jpe?g|gif|webp);/i;

/**
 * Throws an IntakeError that names the first script or external reference in an SVG, or says that it costs too much to
 * draw; returns what it costs. Linear in its length.
 */
export function checkSvg(bytes: Uint8Array): SvgCost {
  const text = decode(bytes);
  const sheet = makeCostSheet();
  let style: string | null = null;
  readXml(
    text,
    {
      open({ name, attributes }) {
        const local = localName(name);
        if (/^script$/i.test(local)) refuse("contains a script");
        if (/^foreignObject$/i.test(local)) refuse("contains a piece of a web page (foreignObject)");
        for (const [key, value] of Object.entries(attributes)) checkAttribute(localName(key), value);
        if (local === "style") style = "";
        sheet.open(local, attributes);
      },
      text(part) {
        if (style !== null) style += part;
      },
      close() {
        sheet.close();
        if (style === null) return;
        checkStyle(style);
        sheet.style(style);
        style = null;
      },
      doctype(doctype) {
        if (/<!ENTITY/i.test(doctype)) refuse("declares entities of its own");
      },
      instruction(name) {
        if (/^xml-stylesheet$/i.test(name)) refuse("refers to a style sheet outside itself");
      },
      tooDeep: () => refuse(`nests its groups more than ${MOST_DEEP} deep`),
      wrong() {
        throw new IntakeError(
          "The SVG is damaged or ends too early. Ask for it again; the copy may have been cut off.",
        );
      },
    },
    { hasNamespaces: false, mostDeep: MOST_DEEP },
  );
  return sheet.reckon();
}

function refuse(what: string): never {
  throw new IntakeError(
    `The SVG ${what}. Export it again as plain shapes, with pictures embedded and without scripts.`,
  );
}

function decode(bytes: Uint8Array): string {
  const head = new TextDecoder("latin1").decode(bytes.subarray(0, 256));
  const encoding = /^\s*<\?xml[^>]{0,100}?encoding\s{0,9}=\s{0,9}["']([^"']{1,40})["']/.exec(
    head.replace(/^\u00ef\u00bb\u00bf/, ""),
  )?.[1];
  if (encoding !== undefined && !PLAIN_ENCODING.test(encoding))
    throw new IntakeError(`The SVG is written in "${encoding}". Save it again as UTF-8.`);
  return new TextDecoder(encoding ?? "utf-8").decode(bytes);
}

const localName = (name: string) => name.slice(name.indexOf(":") + 1);

function checkAttribute(name: string, value: string): void {
  if (/^on[a-z]/i.test(name)) refuse("contains a script");
  if (/^(href|src)$/i.test(name)) {
    const target = value.trim();
    if (/^javascript:/i.test(target)) refuse("contains a script");
    if (target !== "" && !target.startsWith("#") && !HARMLESS_PICTURE.test(target)) refuseOutside(target);
  } else checkStyle(value);
}

function refuseOutside(target: string): never {
  return refuse(`refers to something outside itself ("${target.slice(0, 60)}")`);
}

/** CSS, or an attribute that may hold a url(). */
function checkStyle(css: string): void {
  if (css.includes("@") && /@import/i.test(css)) refuse("refers to a style sheet outside itself");
  const lower = css.toLowerCase();
  for (let at = lower.indexOf("url("); at >= 0; at = lower.indexOf("url(", at + 4)) {
    const target = css.slice(at + 4, at + 200).replace(/^[\s"']+/, "");
    if (!target.startsWith("#") && !HARMLESS_PICTURE.test(target)) refuseOutside(target.split(/["')\s]/, 1)[0] ?? "");
  }
}
