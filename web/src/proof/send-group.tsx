// Sending the proof: frozen as it is, with a link that needs no account.
import type { ShopProof } from "@plain-palette/contract";
import { USUAL_DAYS } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client.ts";
import { readAnew } from "../api/read-anew.ts";
import { useJob } from "../job/use-job.ts";
import { proofsKey } from "../job/use-proofs.ts";
import { Button } from "../parts/button.tsx";
import { NumberField } from "../parts/fields.tsx";
import { InPlaceText } from "../parts/in-place.tsx";
import { ProblemNote, problemOf } from "../parts/problem.tsx";

interface Props {
  readonly sent: readonly ShopProof[];
  readonly isReady: boolean;
  onSent(id: string): void;
}

export function SendGroup({ sent, isReady, onSent }: Props) {
  const job = useJob((state) => state.job);
  const flush = useJob((state) => state.flush);
  const patch = useJob((state) => state.patch);
  const [days, setDays] = useState(USUAL_DAYS);
  const [isSending, setIsSending] = useState(false);
  const [problem, setProblem] = useState<ReturnType<typeof problemOf> | null>(null);
  const queries = useQueryClient();
  const send = async () => {
    setIsSending(true);
    setProblem(null);
    try {
      const made = await api.sendProof(job.id, { recipeVersion: await flush(), days });
      await readAnew(queries, proofsKey(job.id));
      onSent(made.id);
    } catch (error) {
      setProblem(problemOf(error));
    } finally {
      setIsSending(false);
    }
  };
  const next = (sent[0]?.number ?? 0) + 1;
  return (
    <fieldset className="border border-rule bg-sheet p-3">
      <legend className="float-left w-full pb-1 font-semibold">Send it to the client</legend>
      <div className="clear-both grid gap-1">
        <span className="grid grid-cols-[4rem_1fr] items-center">
          <span className="text-soft">Mail</span>
          <InPlaceText
            label="The client's mail address"
            text={job.clientMail}
            placeholder="None: pass the link on yourself"
            onCommit={(clientMail) => void patch({ clientMail: clientMail.trim() })}
          />
        </span>
        <NumberField
          label="Link is open for"
          value={days}
          unit="days"
          min={1}
          max={365}
          stepBy={1}
          onChange={(value) => setDays(Math.round(value))}
        />
        <Button look="next" className="mt-1 w-full py-1.5" disabled={!isReady || isSending} onClick={() => void send()}>
          {isSending ? "Freezing and sending ..." : next > 1 ? `Send version ${next}` : "Send the proof"}
        </Button>
        <p className="text-xs text-soft">
          {next > 1
            ? "What was sent before stays as it is, to compare; the client answers the newest."
            : "It is frozen as it is now: later changes do not reach it."}
        </p>
        {problem && <ProblemNote problem={problem} onClose={() => setProblem(null)} />}
      </div>
    </fieldset>
  );
}
