// Days as people write them.

/** A day, or the day of a moment: "4 March 2027" in the reader's own way. */
export function dayInWords(day: string): string {
  return new Date(day).toLocaleDateString(undefined, {
    dateStyle: "long",
    ...(day.length === 10 ? { timeZone: "UTC" } : {}),
  });
}

/** Today where one sits, as 2027-03-04. */
export function todayHere(): string {
  const now = new Date();
  const two = (value: number) => String(value).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
