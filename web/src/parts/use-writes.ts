// Writing to the server from a list page: the refusal is kept to be shown, and the list is read anew either way.
import type { Problem } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { problemOf } from "./problem.tsx";

/** `queryKey` names what is read anew after each write. */
export function useWrites(queryKey: string) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const write = async <T>(work: () => Promise<T>): Promise<T | null> => {
    setProblem(null);
    let done: T | null = null;
    try {
      done = await work();
    } catch (error) {
      setProblem(problemOf(error));
    }
    await queries.invalidateQueries({ queryKey: [queryKey] });
    return done;
  };
  return { problem, write, forget: () => setProblem(null) };
}
