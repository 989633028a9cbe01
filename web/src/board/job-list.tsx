// Jobs one under the other, for whoever looks for one among many.
import type { JobCard } from "@plain-palette/contract";
import { processOf } from "@plain-palette/core/processes";
import { Link } from "react-router";
import { STATE_WAITS, sayDue, sayState } from "../job/states.ts";
import { todayHere } from "../proof-view/days.ts";
import { jobAddress } from "./job-card.tsx";

const WHOM = { shop: "the shop", client: "the client", nobody: "" } as const;

export function JobList({ jobs }: { jobs: readonly JobCard[] }) {
  const today = todayHere();
  return (
    <table className="w-full border border-rule bg-card text-left">
      <thead>
        <tr className="text-soft">
          {["No.", "Job", "Client", "Made with", "How far", "Waits for", "Due"].map((title) => (
            <th key={title} scope="col" className="px-3 py-1.5 font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {jobs.map((job) => (
          <tr key={job.id} className="border-t border-rule hover:bg-sheet">
            <td className="px-3 py-1 text-soft">{job.number}</td>
            <td className="max-w-96 px-3 py-1">
              <Link to={jobAddress(job)} className="flex items-center gap-2 underline-offset-2 hover:underline">
                <span className="size-3 shrink-0 border border-soft/50" style={{ background: job.garment }} />
                <span className="truncate font-semibold">{job.title}</span>
              </Link>
            </td>
            <td className="max-w-64 truncate px-3 py-1">{job.client}</td>
            <td className="px-3 py-1">{processOf(job.process).name.toLowerCase()}</td>
            <td className={`px-3 py-1 ${job.state === "changed" ? "text-wrong" : ""}`}>{sayState(job)}</td>
            <td className="px-3 py-1">{WHOM[STATE_WAITS[job.state]]}</td>
            <td className={`px-3 py-1 ${job.dueDay && job.dueDay < today ? "text-wrong" : ""}`}>
              {job.dueDay ? sayDue(job.dueDay, today) : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
