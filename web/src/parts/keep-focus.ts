// The keyboard's focus is never lost: when what has it is taken from the page, it goes to what has come in its place, or
// stands next to it.

const FOCUSABLE = [
  "a[href]",
  "button",
  "input:not([type=hidden], :disabled)",
  "select:not(:disabled)",
  "textarea:not(:disabled)",
  "summary",
  "[tabindex]",
]
  .map((kind) => `${kind}:not([tabindex="-1"])`)
  .join(",");

/** An ancestor, and which of its children the way to the focus goes through. */
interface Stage {
  readonly element: Element;
  readonly at: number;
}

function wayTo(target: Element): Stage[] {
  const way: Stage[] = [];
  for (let child = target, element = target.parentElement; element; child = element, element = element.parentElement)
    way.push({ element, at: [...element.children].indexOf(child) });
  return way;
}

function focusableIn(element: Element): HTMLElement[] {
  const own = element.matches(FOCUSABLE) ? [element as HTMLElement] : [];
  return [...own, ...element.querySelectorAll<HTMLElement>(FOCUSABLE)].filter((one) => one.checkVisibility());
}

/** Who takes over at the end of a way whose last part is gone; null where there is nobody. */
export function heirOf(way: readonly Stage[]): HTMLElement | null {
  for (const { element, at } of way) {
    // A page that is gone as a whole leaves nobody: the next one begins at its heading.
    if (element.id === "root") return null;
    if (!element.isConnected) continue;
    const children = [...element.children];
    for (const after of children.slice(at)) {
      const [first] = focusableIn(after);
      if (first) return first;
    }
    for (const before of children.slice(0, at).reverse()) {
      const last = focusableIn(before).at(-1);
      if (last) return last;
    }
  }
  return null;
}

/** Watches over the page from now on. */
export function keepFocus(): void {
  let held: Element | null = null;
  let way: Stage[] = [];
  document.addEventListener("focusin", ({ target }) => {
    held = target as Element;
    way = wayTo(held);
  });
  document.addEventListener("focusout", () =>
    queueMicrotask(() => {
      // Laid down by a person, who pressed beside everything.
      if (document.activeElement === document.body && held?.isConnected) held = null;
    }),
  );
  new MutationObserver(() => {
    if (!held || held.isConnected || document.activeElement !== document.body) return;
    held = null;
    heirOf(way)?.focus();
  }).observe(document.body, { childList: true, subtree: true });
}
