// Loads a job and keeps its recipe store while a screen shows it.
import { useQuery } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useState } from "react";
import { useStore } from "zustand";
import { api } from "../api/client.ts";
import { shopOutbox } from "../outbox/shop-outbox.ts";
import { makeRecipeStore, type RecipeState, type RecipeStore, recipeThread, ticketThread } from "./recipe-store.ts";

/** The store of a job; null while it loads. Throws the server's refusal to the route's error screen. */
export function useJobStore(id: string): RecipeStore | null {
  const [store, setStore] = useState<RecipeStore | null>(null);
  const { data } = useQuery({
    queryKey: ["job", id],
    queryFn: async () => {
      // What was left of it is on the server before it is looked at.
      await shopOutbox.ready;
      await Promise.all([recipeThread(id), ticketThread(id)].map(shopOutbox.settle));
      return api.findJob(id);
    },
    throwOnError: true,
    gcTime: 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  useEffect(() => {
    if (!data) return;
    const made = makeRecipeStore(data, shopOutbox);
    setStore(made);
    return made.stop;
  }, [data]);
  return store?.getState().job.id === id ? store : null;
}

export const JobContext = createContext<RecipeStore | null>(null);

/** A part of the current job's state; only inside a JobContext. */
export function useJob<T>(select: (state: RecipeState) => T): T {
  const store = useContext(JobContext);
  if (!store) throw new Error("useJob outside a job");
  return useStore(store, select);
}
