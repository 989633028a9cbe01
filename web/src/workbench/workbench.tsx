// The workbench: ticket, and the step that is open.
import { JOB_STEPS, type JobStep, jobStepSchema } from "@plain-palette/contract";
import { useCallback, useEffect, useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { useJob } from "../job/use-job.ts";
import { TableMemory } from "../light-table/table-memory.ts";
import { NoSuchPage } from "../parts/no-such-page.tsx";
import { useTitle } from "../parts/use-title.ts";
import { useBench, useLookState } from "./bench.ts";
import { FoldsContext, useFolds } from "./folds.tsx";
import { StepContext } from "./panel.tsx";
import { processAt } from "./process-at.ts";
import { useSaidChanges } from "./say-changes.ts";
import type { TicketStep } from "./screen.ts";
import { StepBench } from "./step-bench.tsx";
import { benchSteps, ticketSteps } from "./steps.ts";
import { Ticket } from "./ticket.tsx";
import { useJobPicture } from "./use-job-picture.ts";
import { useKeys } from "./use-keys.ts";
import { useMoves } from "./use-moves.ts";

export function Workbench() {
  const wanted = jobStepSchema.safeParse(useParams().step);
  return wanted.success ? <OpenStep wanted={wanted.data} /> : <NoSuchPage />;
}

function OpenStep({ wanted }: { wanted: JobStep }) {
  const bench = useBench();
  const looks = useLookState();
  const memory = useMemo(() => new TableMemory(), []);
  const [isSourceHeld, setSourceHeld] = useState(false);
  const patch = useJob((state) => state.patch);
  const { job, recipe, computed, table } = bench;
  const toTable = useCallback(() => table.current?.focus(), [table]);
  useKeys({ ...useMoves(), toTable, showSource: setSourceHeld });
  useSaidChanges(bench);
  useJobPicture(computed);
  const [params] = useSearchParams();
  const made = processAt(params, recipe);
  const isOpen = ({ id, process = made }: Pick<TicketStep, "id" | "process">) => id === wanted && process === made;
  const steps = benchSteps(recipe);
  const step = steps.find(isOpen) ?? steps[0];
  const listed = ticketSteps(recipe);
  const next = listed[listed.findIndex(isOpen) + 1];
  // The board shows how far a job has come.
  const hasComeFurther = JOB_STEPS.indexOf(step.id) > JOB_STEPS.indexOf(job.step);
  useEffect(() => {
    if (hasComeFurther) void patch({ step: step.id });
  }, [hasComeFurther, step.id, patch]);
  useTitle(`${step.title} · ${job.number} ${job.title}`);
  const folds = useFolds();
  const open = useMemo(() => ({ step, next }), [step, next]);
  return (
    <FoldsContext value={folds}>
      <div className={`flex h-full narrow:h-auto ${folds.isOpen.ticket ? "" : "flex-col"}`}>
        <Ticket current={step} steps={listed} bench={bench} />
        <StepContext value={open}>
          <StepBench
            // What is in hand belongs to the step it was taken up in.
            key={`${recipe.process} ${step.id} ${made}`}
            step={step}
            bench={bench}
            looks={looks}
            memory={memory}
            isSourceHeld={isSourceHeld}
          />
        </StepContext>
      </div>
    </FoldsContext>
  );
}
