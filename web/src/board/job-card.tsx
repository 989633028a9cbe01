// One job on the board: its result on its garment, how far it is, and what can be done with it as a whole.
import { JOB_STEPS, type JobCard } from "@plain-palette/contract";
import { Link } from "react-router";
import { jobPictureUrl, thumbnailUrl } from "../api/client.ts";
import { sayDue, sayState } from "../job/states.ts";
import { nameStep } from "../job/step-names.ts";
import { todayHere } from "../proof-view/days.ts";

interface Props {
  readonly job: JobCard;
  onCopy(): void;
  onPutAway(isPutAway: boolean): void;
}

export function JobCardView({ job, onCopy, onPutAway }: Props) {
  return (
    <div className="border border-rule bg-card focus-within:border-ink hover:border-ink">
      <Face job={job} />
      <div className="flex gap-3 border-t border-rule px-3 py-1 text-xs">
        <button
          type="button"
          className="underline-offset-2 hover:underline"
          onClick={onCopy}
          aria-label={`Copy ${job.title}`}
        >
          Copy
        </button>
        <button
          type="button"
          className="underline-offset-2 hover:underline"
          onClick={() => onPutAway(!job.isPutAway)}
          aria-label={`${job.isPutAway ? "Take out" : "Put away"} ${job.title}`}
        >
          {job.isPutAway ? "Take out again" : "Put away"}
        </button>
      </div>
    </div>
  );
}

/** Where a job is opened: where it was left. */
export function jobAddress({ id, step }: Pick<JobCard, "id" | "step">): string {
  return `/jobs/${id}/${step}`;
}

function Face({ job }: { job: JobCard }) {
  const reached = JOB_STEPS.indexOf(job.step);
  const picture = job.picture === null ? thumbnailUrl(job.artwork.hash) : jobPictureUrl(job.id, job.picture);
  return (
    <Link to={jobAddress(job)} className="block">
      <div className="grid h-52 place-items-center overflow-hidden p-4" style={{ background: job.garment }}>
        <img src={picture} alt="" className="max-h-44 max-w-full object-contain" />
      </div>
      <div className="border-t border-rule px-3 pb-3 pt-2">
        <div className="flex items-baseline gap-2">
          <span className="text-soft">No. {job.number}</span>
          <span className="ml-auto inline-flex items-center gap-1.5 text-soft">
            <span className="size-3 border border-soft/50" style={{ background: job.garment }} />
            {job.garment}
          </span>
        </div>
        <p className="truncate text-[15px] font-semibold">{job.title}</p>
        <p className="flex justify-between gap-2 text-soft">
          <span className="truncate">{job.client || "No client yet"}</span>
          {job.dueDay && (
            <span className={`shrink-0 ${job.dueDay < todayHere() ? "text-wrong" : ""}`}>
              {sayDue(job.dueDay, todayHere())}
            </span>
          )}
        </p>
        <div className="mt-2 flex items-center gap-2">
          <span className="flex flex-1 gap-0.5" aria-hidden="true">
            {JOB_STEPS.map((step, i) => (
              <span key={step} className={`h-1 flex-1 ${i <= reached ? "bg-ink" : "bg-rule"}`} />
            ))}
          </span>
          <span className={job.state === "changed" ? "text-wrong" : ""}>
            {job.state === "new" || job.state === "making" ? nameStep(job) : sayState(job)}
          </span>
        </div>
      </div>
    </Link>
  );
}
