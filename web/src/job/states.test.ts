// What a job waits for, as the board says it.
import { JOB_STATES } from "@plain-palette/contract";
import { describe, expect, it } from "vitest";
import { STATE_WAITS, STATE_WORDS, sayDue, sayState } from "./states.ts";

describe("a due day", () => {
  it.each([
    ["2027-03-01", "3 days late"],
    ["2027-03-03", "a day late"],
    ["2027-03-04", "due today"],
    ["2027-03-05", "due tomorrow"],
  ])("%s is said from the fourth", (day, said) => {
    expect(sayDue(day, "2027-03-04")).toBe(said);
  });
  it("has its year only where that is another, and late days count over the year's end", () => {
    expect(sayDue("2027-05-01", "2027-03-04")).not.toContain("2027");
    expect(sayDue("2028-05-01", "2027-03-04")).toContain("2028");
    expect(sayDue("2026-12-31", "2027-01-02")).toBe("2 days late");
  });
});

describe("a state", () => {
  it("has words of its own and somebody whose turn it is, and a yes its day", () => {
    expect(new Set(JOB_STATES.map((state) => STATE_WORDS[state])).size).toBe(JOB_STATES.length);
    expect(JOB_STATES.filter((state) => STATE_WAITS[state] === "client")).toEqual(["waits"]);
    expect(sayState({ state: "changed", yesDay: "2027-03-04" })).toMatch(/^Changed since the yes of .*2027/);
    expect(sayState({ state: "waits", yesDay: "2027-03-04" })).toBe("Waits for the client");
  });
});
