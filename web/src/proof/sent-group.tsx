// A version that was sent: how it stands, its link, what was said on it, and the shop's word.
import type { ShopProof } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useEffect, useId, useRef, useState } from "react";
import { api, proofPdfUrl } from "../api/client.ts";
import { readAnew } from "../api/read-anew.ts";
import { useJob } from "../job/use-job.ts";
import { proofsKey } from "../job/use-proofs.ts";
import { Button } from "../parts/button.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { dayInWords } from "../proof-view/days.ts";
import { Talk } from "../proof-view/talk.tsx";
import { useShop } from "../shop/use-shop.ts";

interface Props {
  readonly sent: ShopProof;
  readonly pin: { readonly x: number; readonly y: number } | null;
  onPin(): void;
  onSaid(): void;
  onBack(): void;
}

export function SentGroup({ sent, pin, onPin, onSaid, onBack }: Props) {
  const { id, number, link, isReplaced, withdrawnAt } = sent;
  const jobId = useJob((state) => state.job.id);
  const { settings } = useShop();
  const [replyTo, setReplyTo] = useState<string | null>(null);
  const [said, setSaid] = useState("");
  const [problem, setProblem] = useState<ReturnType<typeof problemOf> | null>(null);
  const queries = useQueryClient();
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => head.current?.focus(), []);
  const act = async (work: () => Promise<unknown>, then: string) => {
    setProblem(null);
    try {
      await work();
      setSaid(then);
      await readAnew(queries, proofsKey(jobId));
    } catch (error) {
      setProblem(problemOf(error));
    }
  };
  const isOpen = !withdrawnAt && !isReplaced && new Date(sent.endsAt) > new Date();
  return (
    <section aria-label={`Version ${number}`} className="grid gap-2 border border-rule bg-sheet p-3">
      <div className="flex items-baseline justify-between gap-2">
        <h2 ref={head} tabIndex={-1} className="font-semibold focus-visible:outline-0">
          Version {number}
        </h2>
        <Button look="quiet" onClick={onBack}>
          As it is now
        </Button>
      </div>
      <p role="status">{sayStanding(sent)}</p>
      <div className="flex gap-2">
        <input
          aria-label="The client's link"
          readOnly
          value={link}
          className="min-w-0 flex-1 rounded-[3px] border border-edge bg-card px-2 py-1 text-xs"
          onFocus={(event) => event.target.select()}
        />
        <Button onClick={() => void act(() => navigator.clipboard.writeText(link), "The link is copied.")}>Copy</Button>
      </div>
      <div className="flex flex-wrap gap-2">
        <a
          href={proofPdfUrl(jobId, id)}
          target="_blank"
          rel="noreferrer"
          className="rounded-[3px] border border-edge bg-card px-2.5 py-1 text-[13px] leading-5 hover:border-ink"
        >
          PDF
        </a>
        <Button
          disabled={!isOpen || sent.yes !== null}
          onClick={() => void act(() => api.remindClient(jobId, id), "A reminder is written.")}
        >
          Remind
        </Button>
        <Button
          disabled={withdrawnAt !== null}
          onClick={() =>
            void act(() => api.withdrawProof(jobId, id), `The link of version ${number} opens nothing any more.`)
          }
        >
          Withdraw the link
        </Button>
      </div>
      <p role="status" className="text-xs text-soft empty:hidden">
        {said}
      </p>
      {problem && <ProblemNote problem={problem} onClose={() => setProblem(null)} />}
      <Talk
        notes={sent.notes}
        reader="shop"
        shopName={settings.shopName}
        replyTo={replyTo}
        {...(isReplaced ? {} : { onReply: setReplyTo })}
      />
      {!isReplaced && (
        <WordForm
          isAnswer={replyTo !== null}
          pin={pin}
          onPin={onPin}
          onSend={async (text) => {
            await act(
              () => api.sayOnProof(jobId, id, { text, replyTo, at: replyTo ? null : pin }),
              "The client is told.",
            );
            setReplyTo(null);
            onSaid();
          }}
        />
      )}
    </section>
  );
}

function sayStanding({ sentAt, endsAt, withdrawnAt, yes, isReplaced, isCurrent, notes }: ShopProof): string {
  const sent = `Sent ${dayInWords(sentAt)}.`;
  if (yes)
    return `${yes.name} said yes on ${dayInWords(yes.day)}. ${isCurrent ? "The job is as it was then." : "The job has changed since."}`;
  if (isReplaced) return `${sent} A newer version was sent since.`;
  if (withdrawnAt) return `${sent} The link was withdrawn ${dayInWords(withdrawnAt)}.`;
  if (new Date(endsAt) < new Date()) return `${sent} The link ended ${dayInWords(endsAt)}.`;
  const last = notes.at(-1);
  return `${sent} ${last?.by === "client" ? "The client waits for your word." : "Waits for the client."} Open until ${dayInWords(endsAt)}.`;
}

interface WordProps {
  readonly isAnswer: boolean;
  readonly pin: Props["pin"];
  onPin(): void;
  onSend(text: string): Promise<void>;
}

function WordForm({ isAnswer, pin, onPin, onSend }: WordProps) {
  const id = useId();
  const [text, setText] = useState("");
  const send = async (event: FormEvent) => {
    event.preventDefault();
    await onSend(text);
    setText("");
  };
  return (
    <form className="grid gap-1" onSubmit={(event) => void send(event)}>
      <label htmlFor={id}>{isAnswer ? "Your answer" : "Ask the client"}</label>
      <textarea
        id={id}
        required
        rows={2}
        maxLength={2000}
        className="w-full rounded-[3px] border border-edge bg-card px-2 py-1"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="flex items-center gap-3">
        <Button type="submit">{isAnswer ? "Answer" : "Ask"}</Button>
        {!isAnswer &&
          (pin ? (
            <span className="text-xs text-soft">About the place that is marked</span>
          ) : (
            <button type="button" className="text-xs underline" onClick={onPin}>
              Mark a place
            </button>
          ))}
      </div>
    </form>
  );
}
