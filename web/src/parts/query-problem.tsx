// What could not be fetched, and that it is tried again, or can be.
import { tryNow } from "../api/again.ts";
import { isAway } from "../api/requests.ts";
import { AgainLine } from "./again-line.tsx";
import { Button } from "./button.tsx";
import { ProblemNote, problemOf } from "./problem.tsx";

export function QueryProblem({ query }: { query: { readonly isError: boolean; readonly error: unknown } }) {
  if (!query.isError) return null;
  const problem = problemOf(query.error);
  return (
    <div className="mb-4">
      <ProblemNote problem={problem}>
        {isAway(problem) ? (
          <AgainLine className="mt-1" />
        ) : (
          <Button className="mt-2" onClick={tryNow}>
            Try again
          </Button>
        )}
      </ProblemNote>
    </div>
  );
}
