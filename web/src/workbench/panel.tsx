// The frame of a step's settings, and the way on.
import { createContext, type ReactNode, useContext } from "react";
import { useNavigate } from "react-router";
import { useJob } from "../job/use-job.ts";
import { Button } from "../parts/button.tsx";
import { stepAddress } from "./process-at.ts";
import type { TicketStep } from "./screen.ts";

/** The step that is open and the one after it. */
export const StepContext = createContext<{ readonly step: TicketStep; readonly next: TicketStep | undefined } | null>(
  null,
);

/** `isDone`: nothing else in this step is to be done next, so the way on is. */
export function Panel({ isDone = true, children }: { isDone?: boolean; children: ReactNode }) {
  const steps = useContext(StepContext);
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const navigate = useNavigate();
  if (!steps) throw new Error("Panel outside a step");
  const { step, next } = steps;
  return (
    <section
      aria-label={step.title}
      className="flex w-[21rem] shrink-0 flex-col border-l border-rule bg-sheet narrow:w-full narrow:border-t"
    >
      <h1 className="border-b border-rule px-4 py-3 text-lg font-semibold leading-6">{step.title}</h1>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">{children}</div>
      {next && (
        <div className="border-t border-rule p-3">
          <Button
            look={isDone ? "next" : "plain"}
            className="w-full py-1.5"
            onClick={() => navigate(stepAddress(job.id, next, recipe))}
          >
            On to {next.title.toLowerCase()}
          </Button>
        </div>
      )}
    </section>
  );
}

export function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="mb-4 min-w-0 border-t border-rule pt-2 first:border-t-0 first:pt-0">
      <legend className="float-left w-full pb-1 font-semibold">{title}</legend>
      <div className="clear-both">{children}</div>
    </fieldset>
  );
}

/** A count that tells a person whether the result is sane. */
export function Fact({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="flex justify-between gap-3 py-0.5">
      <dt className="text-soft">{label}</dt>
      <dd className="text-right">{children}</dd>
    </div>
  );
}
