// Days as people write them.

/** A day, or the day of a moment: "4 March 2027" in the reader's own way. */
export function dayInWords(day: string): string {
  return new Date(day).toLocaleDateString(undefined, {
    dateStyle: "long",
    ...(day.length === 10 ? { timeZone: "UTC" } : {}),
  });
}
