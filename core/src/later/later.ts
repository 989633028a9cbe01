// Parts of the program that are loaded when first needed, once: a browser waits for none that it does not use, and a process
// that gives up its right to read files loads all of them before.

const parts: (() => Promise<unknown>)[] = [];

/** Loads a part when it is first asked for; afterwards it is there. */
export function later<Part>(load: () => Promise<Part>): () => Promise<Part> {
  let part: Promise<Part> | undefined;
  const ask = () => {
    part ??= load();
    return part;
  };
  parts.push(ask);
  return ask;
}

/** Loads all parts that any module read so far may ask for. */
export async function loadAllParts(): Promise<void> {
  for (const ask of parts) await ask();
}
