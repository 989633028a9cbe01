// Deeds that need the server at once, from a list page: one after another, and a refusal is kept to be shown. What must not
// be lost goes through the outbox instead.
import type { Problem } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { readAnew } from "../api/read-anew.ts";
import { problemOf } from "./problem.tsx";

/** `queryKey` names what is read anew after each. */
export function useWrites(queryKey: string) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const write = <T>(work: () => Promise<T>): Promise<T | null> => {
    setProblem(null);
    const done = last.current.then(async () => {
      try {
        return await work();
      } catch (error) {
        setProblem(problemOf(error));
        return null;
      } finally {
        await readAnew(queries, [queryKey]);
      }
    });
    last.current = done;
    return done;
  };
  return { problem, write, forget: () => setProblem(null) };
}
