// One job, open: its store and what computes it are shared by all screens that show it, so that each begins where the one
// before left it.
import { useEffect } from "react";
import { Outlet, useParams } from "react-router";
import { api } from "../api/client.ts";
import { ComputeContext, useComputeWorker } from "../compute/use-compute.ts";
import { hearWindows, tellWindows } from "../outbox/other-windows.ts";
import { BackToBoard } from "../parts/back-to-board.tsx";
import type { RecipeStore } from "./recipe-store.ts";
import { JobContext, useJobStore } from "./use-job.ts";

export function OpenJob() {
  const store = useJobStore(useParams().id ?? "");
  if (!store)
    return (
      <div className="p-8">
        <p role="status">Fetching the job ...</p>
        <BackToBoard className="mt-3" />
      </div>
    );
  return <JobInHand key={store.getState().job.id} store={store} />;
}

/** What this window saves, others show; what they save, this one does. */
function useOtherWindows(store: RecipeStore): void {
  useEffect(() => {
    const { id } = store.getState().job;
    const stopTelling = store.subscribe(({ job: { updatedAt } }, before) => {
      if (updatedAt !== before.job.updatedAt) tellWindows({ job: id, updatedAt });
    });
    const stopHearing = hearWindows((changed) => {
      if ("list" in changed || changed.job !== id || changed.updatedAt <= store.getState().job.updatedAt) return;
      void api.findJob(id).then(store.getState().follow, () => {});
    });
    return () => {
      stopTelling();
      stopHearing();
    };
  }, [store]);
}

function JobInHand({ store }: { store: RecipeStore }) {
  useOtherWindows(store);
  return (
    <JobContext value={store}>
      <ComputeContext value={useComputeWorker()}>
        <Outlet />
      </ComputeContext>
    </JobContext>
  );
}
