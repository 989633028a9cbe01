// Large arrays apart from what they belong to: a browser's storage takes no value over some hundred megabytes.

/** Stands where a large array was. */
interface Place {
  readonly largeArray: number;
}

/** An array over so many bytes is large. */
const LARGE_BYTES = 1e6;

const isPlace = (value: object): value is Place => "largeArray" in value && typeof value.largeArray === "number";

/** A copy of plain objects, arrays and maps with places where large arrays were, and these by number. What is the same stays so. */
export function takeApart<T>(whole: T): { readonly rest: T; readonly large: readonly ArrayBufferView[] } {
  const large: ArrayBufferView[] = [];
  const copies = new Map<object, unknown>();
  const copy = (value: unknown): unknown => {
    if (typeof value !== "object" || value === null) return value;
    if (ArrayBuffer.isView(value) && value.byteLength < LARGE_BYTES) return value;
    if (copies.has(value)) return copies.get(value);
    if (ArrayBuffer.isView(value)) {
      copies.set(value, { largeArray: large.length } satisfies Place);
      large.push(value);
      return copies.get(value);
    }
    const made = Array.isArray(value) ? [] : value instanceof Map ? new Map() : {};
    copies.set(value, made);
    if (Array.isArray(made)) for (const part of value as unknown[]) made.push(copy(part));
    else if (made instanceof Map)
      for (const [key, part] of value as Map<unknown, unknown>) made.set(copy(key), copy(part));
    else for (const [key, part] of Object.entries(value)) (made as Record<string, unknown>)[key] = copy(part);
    return made;
  };
  return { rest: copy(whole) as T, large };
}

/** Lays large arrays back where they were, in place. */
export function putTogether<T>(rest: T, large: readonly ArrayBufferView[]): T {
  const seen = new Set<object>();
  const fill = (value: unknown): unknown => {
    if (typeof value !== "object" || value === null || ArrayBuffer.isView(value)) return value;
    if (isPlace(value)) return large[value.largeArray];
    if (seen.has(value)) return value;
    seen.add(value);
    if (Array.isArray(value))
      value.forEach((part, k) => {
        value[k] = fill(part);
      });
    else if (value instanceof Map) for (const [key, part] of value) value.set(key, fill(part));
    else for (const [key, part] of Object.entries(value)) (value as Record<string, unknown>)[key] = fill(part);
    return value;
  };
  return fill(rest) as T;
}
