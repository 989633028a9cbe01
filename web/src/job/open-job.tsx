// One job, open: its store is shared by all screens that show it, so that each begins where the one before left it.
import { Outlet, useParams } from "react-router";
import { JobContext, useJobStore } from "./use-job.ts";

export function OpenJob() {
  const store = useJobStore(useParams().id ?? "");
  if (!store)
    return (
      <p role="status" className="p-8">
        Fetching the job ...
      </p>
    );
  return (
    <JobContext value={store}>
      <Outlet />
    </JobContext>
  );
}
