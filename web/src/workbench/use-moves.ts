// Undo and redo as a person asks for them: what came of it is said.
import { useContext, useMemo } from "react";
import { say } from "../frame/say.tsx";
import { JobContext } from "../job/use-job.ts";

export interface Moves {
  undo(): void;
  redo(): void;
}

export function useMoves(): Moves {
  const store = useContext(JobContext);
  if (!store) throw new Error("useMoves outside a job");
  return useMemo(() => {
    const move = async (way: "undo" | "redo", done: string) => {
      const { recipe } = store.getState();
      await store.getState()[way]();
      const now = store.getState();
      if (now.moveProblem) return;
      say(now.recipe === recipe ? `There is nothing to ${way}.` : done);
    };
    return { undo: () => void move("undo", "Undone."), redo: () => void move("redo", "Done again.") };
  }, [store]);
}
