// The loops that look at every pixel and its neighbours, in AssemblyScript: four pixels at a time. Each works on rows that the
// caller laid into memory, one upon the other; `core/src/kernel` is how the rest of core calls them.
export { decideFrom, decideMixes, decidePure } from "./decide";
export { collectSpans, markFlat } from "./flat";
export { smoothRows } from "./smooth";
export { markThin } from "./thin";

/** Where memory is free from: below are the loops' own places. */
export function freeFrom(): usize {
  return __heap_base;
}
