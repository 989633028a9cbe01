// A recipe that is too large to be sent while the page closes waits in this browser until the job is opened again.
import { type RecipeSave, recipeSaveSchema } from "@plain-palette/contract";

const keyOf = (id: string) => `unsaved recipe of ${id}`;

export function leaveBehind(id: string, save: RecipeSave): void {
  localStorage.setItem(keyOf(id), JSON.stringify(save));
}

/** What was left behind of a job, once; null if nothing was. */
export function takeUpAgain(id: string): RecipeSave | null {
  const text = localStorage.getItem(keyOf(id));
  if (text === null) return null;
  localStorage.removeItem(keyOf(id));
  const parsed = recipeSaveSchema.safeParse(JSON.parse(text));
  return parsed.success ? parsed.data : null;
}
