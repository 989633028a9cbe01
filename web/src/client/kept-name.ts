// The client's name, so that it is typed once.
const KEY = "client-name";

export function keptName(): string {
  try {
    return localStorage.getItem(KEY) ?? "";
  } catch {
    return "";
  }
}

export function keepName(name: string): void {
  try {
    localStorage.setItem(KEY, name);
  } catch {
    // A browser that keeps nothing: it is typed again.
  }
}
