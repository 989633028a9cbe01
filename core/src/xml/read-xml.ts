// XML (1.0, fifth edition), read from its beginning to its end without being kept: no entities but XML's own, nothing fetched, no
// deeper than is allowed.
import sax from "sax";

// Paths and embedded pictures are as long as they are; whole files have limits of their own.
sax.MAX_BUFFER_LENGTH = Number.POSITIVE_INFINITY;

export interface XmlElement {
  /** As it is written, with its prefix. */
  readonly name: string;
  /** Without it, and the namespace it stands for; empty unless namespaces are read. */
  readonly local: string;
  readonly uri: string;
  /** By their written names. */
  readonly attributes: Readonly<Record<string, string>>;
}

/** What is told of a text; lines are counted from 1. */
export interface XmlVisitor {
  open(element: XmlElement, line: number): void;
  close(element: XmlElement, line: number): void;
  /** Text between tags, in pieces. */
  text?(part: string): void;
  doctype?(text: string): void;
  instruction?(name: string): void;
  /** What is not well-formed; reading goes on. */
  wrong(message: string, line: number): void;
  /** One more element within others than is allowed: reading ends. */
  tooDeep(line: number): void;
}

export interface XmlLimits {
  readonly hasNamespaces: boolean;
  /** Most elements within each other. */
  readonly mostDeep: number;
}

/** Leaves the parser, which cannot be stopped in another way. */
class TooDeep extends Error {}

/** Linear in the length of the text. Throws what the visitor throws. */
export function readXml(text: string, visitor: XmlVisitor, { hasNamespaces, mostDeep }: XmlLimits): void {
  const parser = sax.parser(true, { xmlns: hasNamespaces, strictEntities: true, trim: false });
  const open: XmlElement[] = [];
  const line = () => parser.line + 1;
  parser.onerror = ({ message }) => {
    visitor.wrong(message.split("\n")[0] ?? "", line());
    parser.resume();
  };
  parser.onopentag = ({ name, local = "", uri = "", attributes }) => {
    if (open.length === mostDeep) throw new TooDeep();
    const plain: Record<string, string> = {};
    for (const [key, value] of Object.entries(attributes)) plain[key] = typeof value === "string" ? value : value.value;
    const element = { name, local, uri, attributes: plain };
    open.push(element);
    visitor.open(element, line());
  };
  parser.onclosetag = () => {
    const element = open.pop();
    if (element) visitor.close(element, line());
  };
  parser.ontext = (part) => visitor.text?.(part);
  parser.oncdata = (part) => visitor.text?.(part);
  parser.ondoctype = (doctype) => visitor.doctype?.(doctype);
  parser.onprocessinginstruction = ({ name }) => visitor.instruction?.(name);
  try {
    parser.write(text).close();
  } catch (error) {
    if (!(error instanceof TooDeep)) throw error;
    visitor.tooDeep(line());
  }
}
