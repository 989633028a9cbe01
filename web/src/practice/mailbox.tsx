// The client's mailbox on the practice bench: every message that went out, or would have, and the way to play the client.
import type { Mail } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api } from "../api/client.ts";
import { ProblemNote, problemOf } from "../parts/problem.tsx";

const KINDS = { ready: "Proof ready", question: "Question or answer", reminder: "Reminder" } as const;
const STATES = { kept: "kept here only", sent: "sent", failed: "could not be sent" } as const;
/** A message may come from another window, ms. */
const LOOK_MS = 5000;

export function Mailbox() {
  const mails = useQuery({ queryKey: ["mails"], queryFn: api.listMails, refetchInterval: LOOK_MS });
  const [openId, setOpenId] = useState<string | null>(null);
  const open = mails.data?.find(({ id }) => id === openId) ?? mails.data?.[0] ?? null;
  if (mails.isError) return <ProblemNote problem={problemOf(mails.error)} />;
  if (!mails.data) return <p role="status">Fetching the messages ...</p>;
  if (!open)
    return (
      <p className="border border-dashed border-soft/60 bg-sheet p-8 text-center">
        No message has gone out yet. Send a job's proof at its Proof step, and it arrives here.
      </p>
    );
  return (
    <div className="grid grid-cols-[22rem_1fr] items-start gap-5 narrow:grid-cols-1">
      <ul aria-label="Messages" className="max-h-[70vh] overflow-y-auto border border-rule bg-card">
        {mails.data.map((mail) => (
          <li key={mail.id} className="border-t border-rule first:border-t-0">
            <button
              type="button"
              aria-pressed={mail.id === open.id}
              className={`grid w-full gap-0.5 px-3 py-2 text-left hover:bg-sheet ${mail.id === open.id ? "bg-sheet" : ""}`}
              onClick={() => setOpenId(mail.id)}
            >
              <span className="flex justify-between gap-2 text-xs text-soft">
                <span>{KINDS[mail.kind]}</span>
                <span>{when(mail)}</span>
              </span>
              <span className="truncate font-semibold">{mail.subject}</span>
              <span className="truncate text-xs text-soft">{mail.to || "no address"}</span>
            </button>
          </li>
        ))}
      </ul>
      <Message mail={open} />
    </div>
  );
}

function when({ createdAt }: Mail): string {
  return new Date(createdAt).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
}

function Message({ mail }: { mail: Mail }) {
  const { subject, to, text, link, state, error, jobId } = mail;
  return (
    <article aria-label={subject} className="grid min-w-0 gap-3 border border-rule bg-sheet p-5">
      <header>
        <h2 className="text-lg font-semibold [overflow-wrap:anywhere]">{subject}</h2>
        <p className="text-soft">
          To {to || "nobody: the job has no mail address"}, {when(mail)}, {STATES[state]}
          {error && <span className="text-wrong">: {error}</span>}
        </p>
      </header>
      <p className="whitespace-pre-wrap [overflow-wrap:anywhere]">{text}</p>
      <p className="flex flex-wrap gap-4">
        <a
          href={link}
          target="_blank"
          rel="noreferrer"
          className="rounded-[3px] border border-next bg-next px-2.5 py-1 text-white"
        >
          Open it as the client
        </a>
        <Link to={`/jobs/${jobId}/proof`} className="self-center underline">
          The job's proof
        </Link>
      </p>
    </article>
  );
}
