import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { readXml } from "./read-xml.ts";

/** What a text says of itself, told in one list. */
function told(text: string, mostDeep = 50): string[] {
  const said: string[] = [];
  readXml(
    text,
    {
      open: ({ local, uri, attributes }, line) => said.push(`<${local} ${uri} ${JSON.stringify(attributes)} @${line}`),
      close: ({ local }) => said.push(`>${local}`),
      text: (part) => {
        if (part.trim()) said.push(part.trim());
      },
      wrong: (message, line) => said.push(`wrong @${line}: ${message}`),
      tooDeep: (line) => said.push(`too deep @${line}`),
    },
    { hasNamespaces: true, mostDeep },
  );
  return said;
}

describe("XML", () => {
  // The example of Namespaces in XML 1.0 (W3C 2009), 6.2, shortened.
  it("is told in order, with namespaces as the standard resolves them", () => {
    const text = `<?xml version="1.0"?>
<book xmlns='urn:loc.gov:books' xmlns:isbn='urn:ISBN:0-395-36341-6'>
  <title>Cheaper by &#x74;he &lt;Dozen></title>
  <isbn:number kind="a&quot;b"><![CDATA[15 & 68]]></isbn:number>
</book>`;
    expect(told(text)).toEqual([
      '<book urn:loc.gov:books {"xmlns":"urn:loc.gov:books","xmlns:isbn":"urn:ISBN:0-395-36341-6"} @2',
      "<title urn:loc.gov:books {} @3",
      "Cheaper by the <Dozen>",
      ">title",
      '<number urn:ISBN:0-395-36341-6 {"kind":"a\\"b"} @4',
      "15 & 68",
      ">number",
      ">book",
    ]);
  });

  it("knows no entities but its own, and says what is wrong where", () => {
    const [, wrong] = told('<!DOCTYPE a [<!ENTITY x "y">]>\n<a>&x;</a>');
    expect(wrong).toMatch(/^wrong @2: Invalid character entity/);
    expect(told("<a>\n<b></a>").some((line) => line.startsWith("wrong @2"))).toBe(true);
  });

  it("goes as deep as is allowed and no deeper", () => {
    const nested = (deep: number) => "<a>".repeat(deep) + "</a>".repeat(deep);
    expect(told(nested(50)).filter((line) => line === ">a").length).toBe(50);
    expect(told(nested(51)).at(-1)).toBe("too deep @1");
  });

  it("keeps attributes and texts of any length whole", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), fc.integer({ min: 1, max: 4000 }), (word, times) => {
        const plain = word.replace(/[^ -~]/g, "").trim();
        const long = plain.repeat(times);
        const safe = long
          .replaceAll("&", "&amp;")
          .replaceAll("<", "&lt;")
          .replaceAll('"', "&quot;")
          .replaceAll(">", "&gt;");
        const attributes: unknown[] = [];
        let text = "";
        readXml(
          `<a b="${safe}">${safe}</a>`,
          {
            open: (element) => attributes.push(element.attributes.b),
            close: () => {},
            text: (part) => {
              text += part;
            },
            wrong: (message) => expect.fail(message),
            tooDeep: () => expect.fail("it is flat"),
          },
          { hasNamespaces: false, mostDeep: 1 },
        );
        expect(attributes).toEqual([long]);
        expect(text).toBe(long);
      }),
    );
  });
});
