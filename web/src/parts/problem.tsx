// A problem as a person reads it: what happened, what was kept, what to do.
import type { Problem } from "@plain-palette/contract";
import type { ReactNode } from "react";
import { RequestProblem } from "../api/requests.ts";

/** The problem behind any error. */
export function problemOf(error: unknown): Problem {
  if (error instanceof RequestProblem) return error.problem;
  if (error instanceof TypeError && NOT_FETCHED.test(error.message)) return PART_MISSING;
  return {
    type: "about:blank",
    title: "This screen stumbled",
    // Not away: a page that stumbles again whenever it is opened must not be opened again by itself.
    status: 500,
    detail: error instanceof Error ? error.message : String(error),
    kept: "Everything saved is kept on the server.",
    cure: "Reload the page.",
  };
}

/** As browsers say that a part of the application's own code did not come (from memory of three of them). */
const NOT_FETCHED = /dynamically imported module|module script failed|error loading/i;
const PART_MISSING: Problem = {
  type: "about:blank",
  title: "This part of Plain Palette could not be fetched",
  status: 0,
  kept: "What was changed is kept in this browser.",
  cure: "Check that Plain Palette is running.",
};

interface NoteProps {
  readonly problem: Problem;
  onClose?(): void;
  /** What can be done about it. */
  readonly children?: ReactNode;
}

export function ProblemNote({ problem, onClose, children }: NoteProps) {
  return (
    <div role="alert" className="border-l-4 border-wrong bg-card px-4 py-3 text-ink">
      <div className="flex items-start gap-3">
        <p className="flex-1 font-semibold">{problem.title}</p>
        {onClose && (
          <button type="button" onClick={onClose} className="text-soft underline">
            Close
          </button>
        )}
      </div>
      {problem.detail && <p className="mt-1">{problem.detail}</p>}
      {problem.lines && (
        <ul aria-label="What is wrong where" className="mt-1 max-h-60 overflow-y-auto">
          {problem.lines.map(({ line, message }) => (
            <li key={`${line} ${message}`}>
              Line {line}: {message}
            </li>
          ))}
        </ul>
      )}
      {problem.kept && <p className="mt-1 text-soft">{problem.kept}</p>}
      {problem.cure && <p className="mt-1">{problem.cure}</p>}
      {children}
    </div>
  );
}
