// The frame of a step's settings, and the way on.
import { createContext, type ReactNode, useContext } from "react";
import { useNavigate } from "react-router";
import { useJob } from "../job/use-job.ts";
import { Button } from "../parts/button.tsx";
import { PageTitle } from "../parts/page-title.tsx";
import { FoldButton, useFoldsHere } from "./folds.tsx";
import { stepAddress } from "./process-at.ts";
import type { TicketStep } from "./screen.ts";

/** The step that is open and the one after it. */
export const StepContext = createContext<{ readonly step: TicketStep; readonly next: TicketStep | undefined } | null>(
  null,
);

interface PanelProps {
  /** Nothing else in this step is to be done next, so the way on is. */
  readonly isDone?: boolean;
  /** What the step is for, always in sight beside the way on. */
  readonly act?: ReactNode;
  readonly children: ReactNode;
}

export function Panel({ isDone = true, act, children }: PanelProps) {
  const steps = useContext(StepContext);
  const job = useJob((state) => state.job);
  const recipe = useJob((state) => state.recipe);
  const navigate = useNavigate();
  const { isOpen } = useFoldsHere();
  if (!steps) throw new Error("Panel outside a step");
  const { step, next } = steps;
  return (
    <section
      aria-label={step.title}
      // Folded away it is still there: what is chosen in it stays.
      hidden={!isOpen.settings}
      className={`${isOpen.settings ? "flex" : "hidden"} w-[21rem] shrink-0 flex-col border-l border-rule bg-sheet narrow:w-full narrow:border-l-0 narrow:border-t`}
    >
      <div className="flex items-center justify-between border-b border-rule py-3 pl-4 pr-2">
        <PageTitle className="text-lg leading-6">{step.title}</PageTitle>
        <FoldButton what="settings" opens={false}>
          Fold
        </FoldButton>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto px-4 py-3">{children}</div>
      {(next || act) && (
        <div className="grid gap-2 border-t border-rule p-3">
          {act}
          {next && (
            <Button
              look={isDone ? "next" : "plain"}
              className="w-full py-1.5"
              onClick={() => navigate(stepAddress(job.id, next, recipe))}
            >
              On to {next.title.toLowerCase()}
            </Button>
          )}
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
