// Loads a job and keeps its recipe store while a screen shows it.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useState } from "react";
import { useStore } from "zustand";
import { api } from "../api/client.ts";
import { takeUpAgain } from "./left-behind.ts";
import { makeRecipeStore, type RecipeState, type RecipeStore } from "./recipe-store.ts";

/** What is still being saved of jobs that were just left: whoever opens one of them again waits for that. */
const leaving = new Map<string, Promise<unknown>>();

/** The store of a job; null while it loads. Throws the server's refusal to the route's error screen. */
export function useJobStore(id: string): RecipeStore | null {
  const queries = useQueryClient();
  const [store, setStore] = useState<RecipeStore | null>(null);
  const { data } = useQuery({
    queryKey: ["job", id],
    queryFn: async () => {
      await leaving.get(id);
      return api.findJob(id);
    },
    throwOnError: true,
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  useEffect(() => {
    if (!data) return;
    const left = takeUpAgain(id);
    const isNews = left !== null && JSON.stringify(left.recipe) !== JSON.stringify(data.recipe);
    // Based on what it was made from: if somebody saved since, a person chooses.
    const made = makeRecipeStore(isNews ? { ...data, head: left.basedOn } : data);
    if (isNews) made.getState().edit(() => left.recipe);
    setStore(made);
    const leave = () => made.getState().leave();
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      const saved = made.getState().flush();
      leaving.set(id, saved);
      void saved.then(() => {
        if (leaving.get(id) === saved) leaving.delete(id);
        return queries.invalidateQueries({ queryKey: ["jobs"] });
      });
    };
  }, [id, data, queries]);
  return store?.getState().job.id === id ? store : null;
}

export const JobContext = createContext<RecipeStore | null>(null);

/** A part of the current job's state; only inside a JobContext. */
export function useJob<T>(select: (state: RecipeState) => T): T {
  const store = useContext(JobContext);
  if (!store) throw new Error("useJob outside a job");
  return useStore(store, select);
}
