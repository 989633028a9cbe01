// What could not be fetched, and that it is tried again.
import { isAway } from "../api/requests.ts";
import { AgainLine } from "./again-line.tsx";
import { ProblemNote, problemOf } from "./problem.tsx";

export function QueryProblem({ query }: { query: { readonly isError: boolean; readonly error: unknown } }) {
  if (!query.isError) return null;
  const problem = problemOf(query.error);
  return (
    <div className="mb-4">
      <ProblemNote problem={problem}>{isAway(problem) && <AgainLine className="mt-1" />}</ProblemNote>
    </div>
  );
}
