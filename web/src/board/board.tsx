// The job board: every job as a card; a picture dropped anywhere makes a new one.
import type { Problem } from "@plain-palette/contract";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useDropzone } from "react-dropzone";
import { useNavigate } from "react-router";
import { api } from "../api/client.ts";
import { Button } from "../parts/button.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { JobCardView } from "./job-card.tsx";

export function Board() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [wanted, setWanted] = useState("");
  const [problem, setProblem] = useState<{ fileName: string; problem: Problem } | null>(null);
  const jobs = useQuery({ queryKey: ["jobs"], queryFn: api.listJobs });
  const take = useMutation({
    mutationFn: api.createJob,
    onSuccess: async (job) => {
      await queries.invalidateQueries({ queryKey: ["jobs"] });
      navigate(`/jobs/${job.id}/artwork`);
    },
    onError: (error, file) => setProblem({ fileName: file.name, problem: problemOf(error) }),
  });
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    multiple: false,
    onDrop: ([file]) => {
      setProblem(null);
      if (file) take.mutate(file);
    },
  });
  const words = wanted.toLowerCase().split(/\s+/);
  const shown = jobs.data?.filter((job) => {
    const text = `${job.number} ${job.title} ${job.client} ${job.artwork.fileName}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  return (
    <div {...getRootProps()} className="min-h-full">
      <input {...getInputProps({ "aria-label": "Picture of a new job" })} />
      <header className="flex items-end gap-4 border-b border-rule bg-sheet px-8 pb-4 pt-6">
        <div className="flex-1">
          <p className="text-soft">Plain Palette</p>
          <h1 className="text-2xl font-semibold leading-tight">Job board</h1>
        </div>
        <input
          type="search"
          aria-label="Search jobs"
          placeholder="Number, title, client"
          value={wanted}
          onChange={(event) => setWanted(event.target.value)}
          className="w-56 rounded-[3px] border border-rule bg-card px-2 py-1"
        />
        <Button look="next" onClick={open} disabled={take.isPending}>
          {take.isPending ? "Taking it in ..." : "New job from a picture"}
        </Button>
      </header>
      <main className="px-8 py-6">
        {problem && (
          <div className="mb-5">
            <p className="mb-1 text-soft">{problem.fileName}</p>
            <ProblemNote problem={problem.problem} onClose={() => setProblem(null)} />
          </div>
        )}
        {jobs.isError && <ProblemNote problem={problemOf(jobs.error)} />}
        {jobs.isPending && <p role="status">Fetching the jobs ...</p>}
        {shown?.length === 0 && (
          <p className="border border-dashed border-soft/60 p-10 text-center">
            {wanted ? `No job has "${wanted}" in it.` : "No jobs yet. Drop the client's picture anywhere on this page."}
          </p>
        )}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-5">
          {shown?.map((job) => (
            <li key={job.id}>
              <JobCardView job={job} />
            </li>
          ))}
        </ul>
      </main>
      {isDragActive && (
        <div className="pointer-events-none fixed inset-4 grid place-items-center border-2 border-dashed border-next bg-sheet/85 text-lg font-semibold">
          Let go: this picture becomes a new job
        </div>
      )}
    </div>
  );
}
