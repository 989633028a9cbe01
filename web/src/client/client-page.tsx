// The proof as its client sees it: looked at, asked about, said yes to. Made for a phone, and for a large screen, too.
import type { ClientProof, Problem } from "@plain-palette/contract";
import { useEffect, useRef, useState } from "react";
import { Choice } from "../parts/choice.tsx";
import { dayInWords } from "../proof-view/days.ts";
import { ProofColours, ProofFacts, ProofRemarks } from "../proof-view/proof-facts.tsx";
import { CloseUp, OnGarment } from "../proof-view/proof-picture.tsx";
import { pinsOf, Talk } from "../proof-view/talk.tsx";
import { DoorProblem, door, pdfAddress } from "./client-door.ts";
import { SayForm } from "./say-form.tsx";
import { YesForm } from "./yes-form.tsx";

/** How often the page looks whether the shop has answered, ms. */
const LOOK_MS = 20_000;

export function ClientPage({ token }: { token: string }) {
  const [view, setView] = useState<ClientProof | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  useEffect(() => {
    let isGone = false;
    const look = () =>
      door.open(token).then(
        (found) => !isGone && setView(found),
        (error) => !isGone && setProblem(error instanceof DoorProblem ? error.problem : null),
      );
    void look();
    const timer = setInterval(() => document.visibilityState === "visible" && void look(), LOOK_MS);
    return () => {
      isGone = true;
      clearInterval(timer);
    };
  }, [token]);
  useEffect(() => {
    if (view) document.title = `${view.proof.title} · ${view.proof.shop}`;
  }, [view]);
  if (view) return <Opened token={token} view={view} onChange={setView} />;
  return (
    <main id="work" tabIndex={-1} className="mx-auto grid max-w-md gap-2 p-8 text-base">
      {problem ? (
        <div role="alert" className="border-l-4 border-wrong bg-card p-4">
          <p className="font-semibold">{problem.title}</p>
          <p>{problem.detail}</p>
          <p>{problem.cure}</p>
        </div>
      ) : (
        <p role="status">Opening your design ...</p>
      )}
    </main>
  );
}

interface OpenedProps {
  readonly token: string;
  readonly view: ClientProof;
  onChange(view: ClientProof): void;
}

type Place = { readonly x: number; readonly y: number };

function Opened({ token, view, onChange }: OpenedProps) {
  const { proof, notes, isReplaced } = view;
  const [look, setLook] = useState<"garment" | "close">("garment");
  const [pin, setPin] = useState<Place | null>(null);
  const [replyTo, setReplyTo] = useState<string | null>(null);
  const standing = useRef<HTMLDivElement>(null);
  const mayWrite = !isReplaced;
  return (
    <div className="min-h-full bg-table text-[15px]">
      <header className="border-b border-rule bg-sheet px-4 py-3 sm:px-8">
        <p className="text-soft">
          {proof.shop}, for {proof.client || "you"}
        </p>
        <h1 className="text-xl font-semibold leading-tight [overflow-wrap:anywhere]">{proof.title}</h1>
        <p className="text-soft">
          Version {proof.number}, {dayInWords(view.sentAt)}
        </p>
      </header>
      <main id="work" tabIndex={-1} className="mx-auto grid max-w-6xl gap-5 p-4 md:grid-cols-[1fr_24rem] md:p-6">
        <div className="grid min-w-0 content-start gap-3 md:sticky md:top-4">
          <div ref={standing} tabIndex={-1}>
            <Standing view={view} />
          </div>
          <div>
            <Choice
              label="Look at it"
              value={look}
              options={[
                { value: "garment", text: "On the garment" },
                { value: "close", text: "Close up" },
              ]}
              onChange={(value: "garment" | "close") => setLook(value)}
            />
          </div>
          <figure className="border border-rule bg-[#e9e8e5] p-3">
            {look === "garment" ? (
              <OnGarment proof={proof} className="max-h-[70vh] w-full" />
            ) : (
              <CloseUp
                proof={proof}
                pins={pinsOf(notes, proof.remarks)}
                pending={pin}
                className="mx-auto block max-h-[75vh] max-w-full"
                {...(mayWrite ? { onPlace: setPin } : {})}
              />
            )}
            {look === "close" && mayWrite && (
              <figcaption className="pt-2 text-soft">Tap the place that you want to speak of.</figcaption>
            )}
          </figure>
          <a href={pdfAddress(token)} target="_blank" rel="noreferrer" className="justify-self-start underline">
            As a PDF to keep or print
          </a>
        </div>
        <div className="grid min-w-0 content-start gap-4">
          <ProofRemarks proof={proof} />
          <ProofFacts proof={proof} />
          <ProofColours proof={proof} />
          <section aria-label="Questions and answers" className="grid gap-2">
            <h2 className="font-semibold">Questions and answers</h2>
            <Talk
              notes={notes}
              reader="client"
              shopName={proof.shop}
              replyTo={replyTo}
              {...(mayWrite ? { onReply: setReplyTo } : {})}
            />
            {mayWrite && (
              <SayForm
                token={token}
                pin={pin}
                replyTo={replyTo}
                onPin={() => setLook("close")}
                onUnpin={() => setPin(null)}
                onSaid={(next) => {
                  setPin(null);
                  setReplyTo(null);
                  onChange(next);
                }}
              />
            )}
          </section>
          {mayWrite && !view.yes && (
            <YesForm
              token={token}
              onYes={(next) => {
                onChange(next);
                // The form goes: what it has done is read next.
                standing.current?.focus();
              }}
            />
          )}
        </div>
      </main>
    </div>
  );
}

/** Where it stands, in one line at the top. */
function Standing({ view: { yes, isReplaced, endsAt } }: { view: ClientProof }) {
  if (isReplaced)
    return (
      <p role="status" className="border-l-4 border-wrong bg-card px-3 py-2">
        A newer version was sent to you: please look at that one. This one is kept to compare.
      </p>
    );
  if (yes)
    return (
      <p role="status" className="border-l-4 border-next bg-card px-3 py-2">
        {yes.name} said yes on {dayInWords(yes.day)}. Thank you: it is made as you see it here.
      </p>
    );
  return (
    <p role="status" className="border-l-4 border-ink bg-card px-3 py-2">
      Please look at words, colours, size and place, then say yes below or tell us what to change. The link is open
      until {dayInWords(endsAt)}.
    </p>
  );
}
