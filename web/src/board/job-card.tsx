// One job on the board: its picture on its garment's colour, and how far it is.
import { JOB_STEPS, type JobCard } from "@plain-palette/contract";
import { Link } from "react-router";
import { thumbnailUrl } from "../api/client.ts";
import { STEP_NAMES } from "../job/step-names.ts";

export function JobCardView({ job }: { job: JobCard }) {
  const reached = JOB_STEPS.indexOf(job.step);
  return (
    <Link
      to={`/jobs/${job.id}/${job.step === "proof" ? "output" : job.step}`}
      className="block border border-rule bg-card hover:border-ink"
    >
      <div className="grid h-52 place-items-center overflow-hidden p-4" style={{ background: job.garment }}>
        <img src={thumbnailUrl(job.artwork.hash)} alt="" className="max-h-44 max-w-full object-contain" />
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
        <p className="truncate text-soft">{job.client || "No client yet"}</p>
        <div className="mt-2 flex items-center gap-2">
          <span className="flex flex-1 gap-0.5" aria-hidden="true">
            {JOB_STEPS.map((step, i) => (
              <span key={step} className={`h-1 flex-1 ${i <= reached ? "bg-ink" : "bg-rule"}`} />
            ))}
          </span>
          <span>{STEP_NAMES[job.step]}</span>
        </div>
      </div>
    </Link>
  );
}
