// The proof, the shop's side of it: what the client would see now, what they were sent, what was said, and what has changed since.
import { useEffect, useState } from "react";
import { Link } from "react-router";
import { useCompute } from "../compute/use-compute.ts";
import { SaveState } from "../job/save-state.tsx";
import { useJob } from "../job/use-job.ts";
import { useFrozenProof, useLiveProof, useProofs } from "../job/use-proofs.ts";
import { Choice } from "../parts/choice.tsx";
import { PageTitle } from "../parts/page-title.tsx";
import { SelectField } from "../parts/select-field.tsx";
import { useTitle } from "../parts/use-title.ts";
import { dayInWords } from "../proof-view/days.ts";
import { ProofColours, ProofFacts, ProofRemarks } from "../proof-view/proof-facts.tsx";
import { CloseUp, OnGarment } from "../proof-view/proof-picture.tsx";
import { pinsOf } from "../proof-view/talk.tsx";
import { Changes } from "./changes.tsx";
import { SendGroup } from "./send-group.tsx";
import { SentGroup } from "./sent-group.tsx";
import { ShowGroup } from "./show-group.tsx";

type Look = "garment" | "close" | "changes";
type Place = { readonly x: number; readonly y: number };

export function ProofPage() {
  const job = useJob((state) => state.job);
  const patch = useJob((state) => state.patch);
  const { computed } = useCompute();
  const sent = useProofs(job.id);
  const live = useLiveProof((sent[0]?.number ?? 0) + 1);
  /** Which version is looked at; null: as it is now. */
  const [openId, setOpenId] = useState<string | null>(null);
  const [look, setLook] = useState<Look>("garment");
  const [pin, setPin] = useState<Place | null>(null);
  const open = sent.find(({ id }) => id === openId) ?? null;
  const agreed = sent.find(({ yes }) => yes !== null) ?? null;
  const frozen = useFrozenProof(job.id, open?.id ?? null);
  const promised = useFrozenProof(job.id, agreed?.id ?? null);
  const isFar = job.step !== "proof";
  useTitle(`Proof · ${job.number} ${job.title}`);
  useEffect(() => {
    if (isFar) void patch({ step: "proof" });
  }, [isFar, patch]);
  const shown = open ? frozen : live;
  const isChanged = agreed !== null && !agreed.isCurrent;
  return (
    <div className="flex min-h-full flex-col bg-table">
      <Head standing={isChanged ? `Changed since the yes of ${dayInWords(agreed.yes?.day ?? "")}` : null} />
      <main
        id="work"
        tabIndex={-1}
        className="grid flex-1 grid-cols-[1fr_23rem] items-start gap-6 px-8 py-5 narrow:grid-cols-1"
      >
        <div className="grid min-w-0 gap-3">
          <div className="flex flex-wrap items-center justify-between gap-3">
            <Choice
              label="Look at"
              value={look}
              options={[
                { value: "garment", text: "On the garment" },
                { value: "close", text: "Close up" },
                ...(promised ? [{ value: "changes" as const, text: "Changes since the yes" }] : []),
              ]}
              onChange={(value: Look) => setLook(value)}
            />
            {sent.length > 0 && look !== "changes" && (
              <div className="w-72" data-version>
                <SelectField
                  label="Version"
                  isWide
                  value={open?.id ?? ""}
                  options={[
                    { value: "", text: "as it is now" },
                    ...sent.map(({ id, number, sentAt }) => ({
                      value: id,
                      text: `${number}, sent ${dayInWords(sentAt)}`,
                    })),
                  ]}
                  onChange={(id) => {
                    setOpenId(id || null);
                    setPin(null);
                  }}
                />
              </div>
            )}
          </div>
          {computed.failure && <p role="alert">The proof could not be drawn: {computed.failure}</p>}
          {look === "changes" && promised && live ? (
            <Changes before={promised} now={live} yesDay={agreed?.yes?.day ?? ""} />
          ) : shown ? (
            <figure className="border border-rule bg-[#e9e8e5] p-4">
              {look === "garment" ? (
                <OnGarment proof={shown} className="h-[34rem] w-full narrow:h-[24rem]" />
              ) : (
                <CloseUp
                  proof={shown}
                  pins={pinsOf(open?.notes ?? [], shown.remarks)}
                  pending={pin}
                  className="mx-auto block max-h-[38rem] max-w-full"
                  {...(open && !open.isReplaced ? { onPlace: setPin } : {})}
                />
              )}
            </figure>
          ) : (
            <p role="status">Drawing the proof ...</p>
          )}
          {shown && <ProofFacts proof={shown} />}
        </div>
        <div className="grid min-w-0 content-start gap-4">
          {!open && (
            <div className="grid gap-4 print:hidden">
              <ShowGroup live={live} />
              <SendGroup sent={sent} isReady={live !== null} onSent={(id) => setOpenId(id)} />
            </div>
          )}
          {open && (
            <SentGroup
              key={open.id}
              sent={open}
              pin={pin}
              onPin={() => setLook("close")}
              onSaid={() => setPin(null)}
              onBack={() => {
                document.querySelector<HTMLElement>("[data-version] select")?.focus();
                setOpenId(null);
              }}
            />
          )}
          {shown && <ProofRemarks proof={shown} />}
          {shown && <ProofColours proof={shown} />}
        </div>
      </main>
    </div>
  );
}

function Head({ standing }: { standing: string | null }) {
  const job = useJob((state) => state.job);
  return (
    <header className="flex flex-wrap items-baseline gap-4 border-b border-rule bg-sheet px-8 py-4 narrow:px-4">
      <div className="min-w-0 flex-1 narrow:basis-full">
        <p className="text-soft">
          Proof for {job.client || "the client"}, No. {job.number}
        </p>
        <PageTitle className="truncate text-2xl leading-tight narrow:whitespace-normal">{job.title}</PageTitle>
      </div>
      {standing && (
        <p role="status" className="border-l-4 border-wrong bg-card px-3 py-1">
          {standing}
        </p>
      )}
      <div className="flex items-baseline gap-4 print:hidden">
        <SaveState />
        <Link to={`/jobs/${job.id}/output`} className="underline">
          Back to the job
        </Link>
      </div>
    </header>
  );
}
