// Proofs of the open job: those that were sent, one that was frozen, and what the client would see now.
import type { ShopProof } from "@plain-palette/contract";
import type { Proof } from "@plain-palette/core/proof";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api } from "../api/client.ts";
import { useCompute, useWishes } from "../compute/use-compute.ts";
import { garmentsOf } from "../garment/garments.ts";
import { useShop } from "../shop/use-shop.ts";
import { useJob } from "./use-job.ts";

/** Clients answer at any time: how often the page looks, ms. */
const LOOK_MS = 10_000;
const NONE: readonly ShopProof[] = [];

export const proofsKey = (jobId: string) => ["proofs", jobId] as const;

export function useProofs(jobId: string): readonly ShopProof[] {
  const sent = useQuery({
    queryKey: proofsKey(jobId),
    queryFn: () => api.listProofs(jobId),
    refetchInterval: LOOK_MS,
  });
  return sent.data ?? NONE;
}

/** Never changes; null until it is here. */
export function useFrozenProof(jobId: string, id: string | null): Proof | null {
  const body = useQuery({
    queryKey: ["proof-body", id],
    queryFn: () => (id === null ? null : api.proofBody(jobId, id)),
    enabled: id !== null,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return body.data ?? null;
}

const TO_THE_END = { upTo: "make" } as const;

/** What would be sent now; null until it is computed. `number`: which version it would be. */
export function useLiveProof(number: number): Proof | null {
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const compute = useCompute();
  const { settings, shelf } = useShop();
  const [proof, setProof] = useState<Proof | null>(null);
  useWishes(compute, job.artwork, recipe, TO_THE_END);
  const { ask, computed } = compute;
  const { made } = computed;
  const { title, client, number: jobNumber } = job;
  const worn = garmentsOf(shelf).find(({ hex }) => hex === recipe.artwork.garment)?.label ?? null;
  useEffect(() => {
    // What was made of an earlier recipe is answered with nothing; what is made of this one comes and asks again.
    if (!made) return;
    const facts = { shopName: settings.shopName, jobNumber, number, title, client, garmentName: worn, shop: settings };
    let isGone = false;
    void ask("proof", { recipe, facts }).then((answer) => {
      if (!isGone && answer) setProof(answer);
    });
    return () => {
      isGone = true;
    };
  }, [ask, made, recipe, settings, jobNumber, number, title, client, worn]);
  return proof;
}
