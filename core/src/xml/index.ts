export { readXml, type XmlElement, type XmlLimits, type XmlVisitor } from "./read-xml.ts";
