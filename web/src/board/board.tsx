// The job board: every job as a card; a picture dropped anywhere makes a new one.
import { type BoardSearch, seenOf } from "@plain-palette/contract";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useDropzone } from "react-dropzone";
import { api } from "../api/client.ts";
import { shopOutbox } from "../outbox/shop-outbox.ts";
import { useWaiting } from "../outbox/use-letters.ts";
import { withTicket } from "../outbox/waiting.ts";
import { Button } from "../parts/button.tsx";
import { ProblemNote } from "../parts/problem.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { SearchField } from "../parts/search-field.tsx";
import { SendingLine } from "../parts/sending-line.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { useWrites } from "../parts/use-writes.ts";
import { BoardFilter, type BoardLook } from "./board-filter.tsx";
import { JobCardView } from "./job-card.tsx";
import { JobList } from "./job-list.tsx";
import { keepLook, keptLook } from "./look-memory.ts";
import { NewSheet } from "./new-sheet.tsx";
import { type Upload, useUploads } from "./use-uploads.ts";

/** So many jobs at first, and more each time. */
const SHOWN = 60;

export function Board() {
  const [wanted, setWanted] = useState("");
  const [showsAway, setShowsAway] = useState(false);
  const { problem, write, forget } = useWrites("jobs");
  /** Said to assistive software, and shown: what was done to which job. */
  const [done, setDone] = useState("");
  const [look, setLook] = useState<BoardLook>(() => ({ state: null, process: null, ...keptLook() }));
  const [most, setMost] = useState(SHOWN);
  const change = (next: BoardLook) => {
    setLook(next);
    keepLook(next);
  };
  const { state, process, sort, as } = look;
  const search: BoardSearch = {
    ...{ words: useDeferredValue(wanted), isPutAway: showsAway ? "yes" : "no", sort, most },
    ...(state === null ? {} : { state }),
    ...(process === null ? {} : { process }),
  };
  const board = useQuery({
    queryKey: ["jobs", "board", search],
    queryFn: () => api.searchBoard(search),
    placeholderData: keepPreviousData,
  });
  const { uploads, take, dismiss } = useUploads();
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    onDrop: (files) => void take(files),
  });
  const { jobs: listed, counts = [], putAway: awayCount = 0 } = board.data ?? {};
  const waiting = useWaiting("ticket");
  const shown = listed?.map((job) => withTicket(job, waiting)).filter((job) => job.isPutAway === showsAway);
  const total = counts.reduce((sum, one) => sum + (state === null || one.state === state ? one.jobs : 0), 0);
  return (
    <div {...getRootProps()} className="min-h-full">
      <ShopHead title="Job board">
        <SearchField label="Search jobs" placeholder="Number, title, client" value={wanted} onChange={setWanted} />
        <NewSheet />
        <Button look="next" onClick={open}>
          New job from a picture
        </Button>
      </ShopHead>
      <main id="work" tabIndex={-1} className="px-8 narrow:px-4 py-6">
        <input {...getInputProps({ "aria-label": "Picture of a new job" })} />
        {uploads.length > 0 && (
          <ul aria-label="Pictures on their way" className="mb-5 grid gap-2">
            {uploads.map((upload) => (
              <li key={upload.id}>
                <UploadLine upload={upload} onDismiss={() => dismiss(upload.id)} />
              </li>
            ))}
          </ul>
        )}
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        <BoardFilter look={look} counts={counts} onChange={change} />
        <div className="mb-3 flex items-center gap-4">
          {(awayCount > 0 || showsAway) && (
            <Button aria-pressed={showsAway} onClick={() => setShowsAway(!showsAway)}>
              {showsAway ? "Back to the board" : `Put away: ${awayCount}`}
            </Button>
          )}
          <p role="status" className="text-soft">
            {done}
          </p>
        </div>
        <QueryProblem query={board} />
        {board.isPending && <p role="status">Fetching the jobs ...</p>}
        {shown?.length === 0 && (
          <p className="border border-dashed border-soft/60 p-10 text-center">
            {showsAway && !wanted
              ? "Nothing is put away."
              : wanted || state !== null || process !== null
                ? wanted
                  ? `No job has "${wanted}" in it.`
                  : "No job is like that."
                : "No jobs yet. Drop or paste the client's picture anywhere on this page."}
          </p>
        )}
        {as === "list" && shown && shown.length > 0 && <JobList jobs={shown} />}
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-5 empty:hidden">
          {(as === "cards" ? (shown ?? []) : []).map((job) => (
            <li key={job.id}>
              <JobCardView
                job={job}
                onCopy={() =>
                  void write(() => api.copyJob(job.id)).then(
                    (copy) => copy && setDone(`No. ${copy.number} is a copy of ${job.title}.`),
                  )
                }
                onPutAway={(isPutAway) => {
                  shopOutbox.post(`No. ${job.number} ${job.title}`, {
                    ...{ kind: "ticket", job: job.id, patch: seenOf(job, { isPutAway }) },
                  });
                  setDone(`${job.title} is ${isPutAway ? "put away" : "on the board again"}.`);
                }}
              />
            </li>
          ))}
        </ul>
        {shown && total > shown.length && (
          <Button className="mt-5" onClick={() => setMost(most + 2 * SHOWN)}>
            More: {total - shown.length}
          </Button>
        )}
      </main>
      {isDragActive && (
        <div className="pointer-events-none fixed inset-4 grid place-items-center border-2 border-dashed border-next bg-sheet/85 text-lg font-semibold">
          Let go: each picture becomes a new job
        </div>
      )}
    </div>
  );
}

function UploadLine({ upload, onDismiss }: { upload: Upload; onDismiss(): void }) {
  if (upload.problem)
    return (
      <>
        <p className="mb-1 text-soft">{upload.name}</p>
        <ProblemNote problem={upload.problem} onClose={onDismiss} />
      </>
    );
  return <SendingLine name={upload.name} sending={upload.sending} onCancel={upload.cancel} />;
}
