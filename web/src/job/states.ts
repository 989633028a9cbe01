// What a job waits for, in words, and for whom.
import type { JobCard, JobState } from "@plain-palette/contract";
import { dayInWords } from "../proof-view/days.ts";

export const STATE_WORDS: Readonly<Record<JobState, string>> = {
  new: "New",
  making: "Being made",
  waits: "Waits for the client",
  answered: "Answered",
  yes: "Yes",
  changed: "Changed since the yes",
  made: "Output made",
};

/** Whose turn it is. */
export const STATE_WAITS: Readonly<Record<JobState, "shop" | "client" | "nobody">> = {
  new: "shop",
  making: "shop",
  waits: "client",
  answered: "shop",
  yes: "shop",
  changed: "shop",
  made: "nobody",
};

/** With the day of the yes, where it matters. */
export function sayState({ state, yesDay }: Pick<JobCard, "state" | "yesDay">): string {
  if (state === "changed" && yesDay) return `Changed since the yes of ${dayInWords(yesDay)}`;
  if (state === "yes" && yesDay) return `Yes, ${dayInWords(yesDay)}`;
  return STATE_WORDS[state];
}

/** A due day as it stands today: late, today, or how soon. */
export function sayDue(dueDay: string, today: string): string {
  const days = Math.round((Date.parse(dueDay) - Date.parse(today)) / 86_400_000);
  if (days < 0) return days === -1 ? "a day late" : `${-days} days late`;
  if (days === 0) return "due today";
  if (days === 1) return "due tomorrow";
  const isThisYear = dueDay.slice(0, 4) === today.slice(0, 4);
  const day = { day: "numeric", month: "short", timeZone: "UTC" } as const;
  const whole = isThisYear ? day : ({ ...day, year: "numeric" } as const);
  return `due ${new Date(dueDay).toLocaleDateString(undefined, whole)}`;
}
