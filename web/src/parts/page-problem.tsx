// The whole screen when a page cannot be shown: why, what waits meanwhile, and the way back.
import { useEffect } from "react";
import { useRouteError } from "react-router";
import { AGAIN_MS, onTryNow } from "../api/again.ts";
import { isAway } from "../api/requests.ts";
import { OutboxNote } from "../outbox/outbox-note.tsx";
import { AgainLine } from "./again-line.tsx";
import { BackToBoard } from "./back-to-board.tsx";
import { Button } from "./button.tsx";
import { ProblemNote, problemOf } from "./problem.tsx";

/** Opens the page again as soon as the server is there. */
function useReturn(isWanted: boolean): void {
  useEffect(() => {
    if (!isWanted) return;
    const look = async () => {
      const health = await fetch("/api/health").catch(() => null);
      if (health?.ok) window.location.reload();
    };
    const timer = setInterval(look, AGAIN_MS);
    const stopHearing = onTryNow(look);
    return () => {
      clearInterval(timer);
      stopHearing();
    };
  }, [isWanted]);
}

export function PageProblem() {
  const problem = problemOf(useRouteError());
  useReturn(isAway(problem));
  return (
    <main id="work" tabIndex={-1} className="mx-auto max-w-xl px-6 pt-24">
      <ProblemNote problem={problem}>
        {isAway(problem) && <AgainLine className="mt-1" />}
        {problem.status === 500 && (
          <Button className="mt-2" onClick={() => window.location.reload()}>
            Reload
          </Button>
        )}
      </ProblemNote>
      <OutboxNote className="mt-4" />
      <BackToBoard className="mt-4" />
    </main>
  );
}
