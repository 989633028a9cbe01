// The workbench: ticket, and the step that is open.
import { JOB_STEPS, jobStepSchema } from "@plain-palette/contract";
import { useCallback, useEffect, useMemo, useState } from "react";
import { useParams, useSearchParams } from "react-router";
import { useJob } from "../job/use-job.ts";
import { TableMemory } from "../light-table/table-memory.ts";
import { useBench, useLookState } from "./bench.ts";
import { StepContext } from "./panel.tsx";
import { processAt } from "./process-at.ts";
import type { TicketStep } from "./screen.ts";
import { StepBench } from "./step-bench.tsx";
import { benchSteps, ticketSteps } from "./steps.ts";
import { Ticket } from "./ticket.tsx";
import { useJobPicture } from "./use-job-picture.ts";
import { useKeys } from "./use-keys.ts";

export function Workbench() {
  const wanted = jobStepSchema.catch("artwork").parse(useParams().step);
  const bench = useBench();
  const looks = useLookState();
  const memory = useMemo(() => new TableMemory(), []);
  const [isSourceHeld, setSourceHeld] = useState(false);
  const undo = useJob((state) => state.undo);
  const redo = useJob((state) => state.redo);
  const patch = useJob((state) => state.patch);
  useKeys(
    useCallback(() => void undo(), [undo]),
    useCallback(() => void redo(), [redo]),
    setSourceHeld,
  );
  const { job, recipe, computed } = bench;
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
  useEffect(() => {
    document.title = `${job.number} ${job.title} · Plain Palette`;
  }, [job.number, job.title]);
  const open = useMemo(() => ({ step, next }), [step, next]);
  return (
    <div className="flex h-full narrow:h-auto narrow:flex-col">
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
  );
}
