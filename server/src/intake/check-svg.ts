// SVG is untrusted: no scripts, no external references, ever. The renderer would not follow them either; refusing says
// so to the person, whose picture would otherwise come out with parts missing.
import { IntakeError } from "./intake-error.ts";

/** Throws an IntakeError that names the first script or external reference in an SVG. */
export function checkSvg(bytes: Uint8Array): void {
  const text = new TextDecoder().decode(bytes);
  const refuse = (what: string): never => {
    throw new IntakeError(
      `The SVG ${what}. Export it again as plain shapes, with pictures embedded and without scripts.`,
    );
  };
  if (/<!ENTITY/i.test(text)) refuse("declares entities of its own");
  if (/<(\w+:)?script[\s>/]/i.test(text)) refuse("contains a script");
  if (/\son[a-z]+\s*=/i.test(text) || /(href|src)\s*=\s*["']?\s*javascript:/i.test(text)) refuse("contains a script");
  if (/<(\w+:)?foreignObject[\s>/]/i.test(text)) refuse("contains a piece of a web page (foreignObject)");
  if (/@import/i.test(text) || /<\?xml-stylesheet/i.test(text)) refuse("refers to a style sheet outside itself");
  for (const [, quoted, bare] of text.matchAll(/\b(?:xlink:)?(?:href|src)\s*=\s*(?:["']\s*([^"']*)|([^\s"'>]+))/gi)) {
    const target = quoted ?? bare ?? "";
    if (target !== "" && !target.startsWith("#") && !/^data:image\/(png|jpe?g|gif|webp);/i.test(target))
      refuse(`refers to something outside itself ("${target.slice(0, 60)}")`);
  }
  for (const [, target = ""] of text.matchAll(/url\(\s*["']?([^)"']*)/gi))
    if (!target.startsWith("#")) refuse(`refers to something outside itself ("${target.slice(0, 60)}")`);
}
