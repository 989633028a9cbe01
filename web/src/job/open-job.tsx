// One job, open: its store and what computes it are shared by all screens that show it, so that each begins where the one
// before left it.
import { Outlet, useParams } from "react-router";
import { ComputeContext, useComputeWorker } from "../compute/use-compute.ts";
import type { RecipeStore } from "./recipe-store.ts";
import { JobContext, useJobStore } from "./use-job.ts";

export function OpenJob() {
  const store = useJobStore(useParams().id ?? "");
  if (!store)
    return (
      <p role="status" className="p-8">
        Fetching the job ...
      </p>
    );
  return <JobInHand key={store.getState().job.id} store={store} />;
}

function JobInHand({ store }: { store: RecipeStore }) {
  return (
    <JobContext value={store}>
      <ComputeContext value={useComputeWorker()}>
        <Outlet />
      </ComputeContext>
    </JobContext>
  );
}
