// Whether what has the focus takes what is typed: then a key is a letter, not a command.
const NOT_TYPED = new Set(["checkbox", "radio", "range", "button", "file"]);

export function takesText(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !NOT_TYPED.has(target.type);
  return target instanceof HTMLTextAreaElement;
}
