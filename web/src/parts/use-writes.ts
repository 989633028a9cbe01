// Writing to the server from a list page: one write after another, each made from what the last one left.
import type { Problem } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { problemOf } from "./problem.tsx";

/**
 * `queryKey` names what is read anew after each write and handed to the next: two things typed quickly both count.
 * A refusal is kept to be shown.
 */
export function useWrites<Listed>(queryKey: string) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<Problem | null>(null);
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const write = <T>(work: (newest: Listed | undefined) => Promise<T>): Promise<T | null> => {
    setProblem(null);
    const done = last.current.then(async () => {
      try {
        return await work(queries.getQueryData<Listed>([queryKey]));
      } catch (error) {
        setProblem(problemOf(error));
        return null;
      } finally {
        await queries.invalidateQueries({ queryKey: [queryKey] });
      }
    });
    last.current = done;
    return done;
  };
  return { problem, write, forget: () => setProblem(null) };
}

/** An entry as it is listed now, or as it was seen last: the server then says that it is gone. */
export function newestOf<T extends { readonly id: string }>(listed: readonly T[] | undefined, seen: T): T {
  return listed?.find(({ id }) => id === seen.id) ?? seen;
}
