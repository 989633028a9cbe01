// The loops that look at every pixel and its neighbours, in AssemblyScript: four pixels at a time. Each works on rows that the
// caller laid into memory, one upon the other; `core/src/kernel` is how the rest of core calls them.
export { collectSpans, markFlat } from "./flat";
export { smoothRows } from "./smooth";
export { markThin } from "./thin";
