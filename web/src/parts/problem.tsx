// A problem as a person reads it: what happened, what was kept, what to do.
import type { Problem } from "@plain-palette/contract";
import { Link, useRouteError } from "react-router";
import { RequestProblem } from "../api/requests.ts";

/** The problem behind any error. */
export function problemOf(error: unknown): Problem {
  if (error instanceof RequestProblem) return error.problem;
  return {
    type: "about:blank",
    title: "This screen stumbled",
    status: 0,
    detail: error instanceof Error ? error.message : String(error),
    kept: "Everything saved is kept on the server.",
    cure: "Reload the page.",
  };
}

export function ProblemNote({ problem, onClose }: { problem: Problem; onClose?: () => void }) {
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
    </div>
  );
}

/** The whole screen when a route fails. */
export function PageProblem() {
  const problem = problemOf(useRouteError());
  return (
    <main className="mx-auto max-w-xl px-6 pt-24">
      <ProblemNote problem={problem} />
      <p className="mt-4">
        <Link to="/" className="underline">
          Back to the job board
        </Link>
      </p>
    </main>
  );
}
