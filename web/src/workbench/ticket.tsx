// The ticket: the job's facts and its steps, each with one live line of summary.

import { useId, useState } from "react";
import { Link } from "react-router";
import { SaveState } from "../job/save-state.tsx";
import { sayState } from "../job/states.ts";
import { useJob } from "../job/use-job.ts";
import { Button } from "../parts/button.tsx";
import { InPlaceText } from "../parts/in-place.tsx";
import { SelectField } from "../parts/select-field.tsx";
import { FoldButton, useFoldsHere, useRoomForTicket } from "./folds.tsx";
import { stepAddress } from "./process-at.ts";
import { allProcessScreens } from "./process-screens.ts";
import type { Bench, TicketStep } from "./screen.ts";
import { useMoves } from "./use-moves.ts";

interface Props {
  readonly current: TicketStep;
  readonly steps: readonly TicketStep[];
  readonly bench: Pick<Bench, "recipe" | "computed" | "size">;
}

/** Beside the table; above it, in a line, where it is folded. */
export function Ticket(props: Props) {
  return useFoldsHere().isOpen.ticket ? <Sheet {...props} /> : <Strip {...props} />;
}

function Sheet(props: Props) {
  const job = useJob((state) => state.job);
  return (
    <aside aria-label="Ticket" className="flex w-60 shrink-0 flex-col border-r border-rule bg-sheet">
      <div className="px-4 pb-3 pt-3">
        <div className="flex items-center justify-between">
          <BoardLink />
          <FoldButton what="ticket" opens={false}>
            Fold
          </FoldButton>
        </div>
        <p className="mt-2 text-3xl font-semibold leading-none">
          <span className="mr-1 align-top text-xs font-normal text-soft">No.</span>
          {job.number}
        </p>
        <Facts />
      </div>
      <Steps {...props} />
      <div className="border-t border-rule px-4 py-3">
        <UndoRedo />
        <SaveState className="mt-2" />
      </div>
    </aside>
  );
}

/** What is not needed all the time is opened under the line. */
function Strip(props: Props) {
  const job = useJob((state) => state.job);
  const [isOpen, setOpen] = useState(false);
  const hasRoom = useRoomForTicket();
  return (
    <aside aria-label="Ticket" className="border-b border-rule bg-sheet px-3 py-1.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <BoardLink />
        <p className="min-w-0 max-w-56 truncate font-semibold narrow:flex-1">
          {job.number} {job.title}
        </p>
        <span>
          {hasRoom ? (
            <FoldButton what="ticket" opens>
              Ticket
            </FoldButton>
          ) : (
            <Button look="quiet" className="px-1.5" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
              Ticket
            </Button>
          )}
        </span>
        <Steps {...props} isStrip />
        <UndoRedo />
        <SaveState />
      </div>
      {isOpen && (
        <div className="max-w-72 pt-1">
          <Facts />
        </div>
      )}
    </aside>
  );
}

function BoardLink() {
  return (
    <Link to="/" className="text-soft underline-offset-2 hover:underline">
      Job board
    </Link>
  );
}

function Facts() {
  const job = useJob((state) => state.job);
  const patch = useJob((state) => state.patch);
  return (
    <>
      <InPlaceText
        label="Title"
        text={job.title}
        className="mt-2 w-full text-[15px] font-semibold"
        onCommit={(title) => void patch({ title: title || job.artwork.fileName })}
      />
      <InPlaceText
        label="Client"
        text={job.client}
        placeholder="Client"
        className="w-full text-soft placeholder:text-soft"
        onCommit={(client) => void patch({ client })}
      />
      <MadeWith />
      <Standing />
    </>
  );
}

function Steps({ current, steps, bench, isStrip = false }: Props & { isStrip?: boolean }) {
  const job = useJob((state) => state.job);
  return (
    <nav aria-label="Steps" className={isStrip ? "" : "flex-1 border-t border-rule"}>
      <ol className={isStrip ? "flex flex-wrap" : ""}>
        {steps.map((step, i) => {
          const isCurrent = step.id === current.id && step.process === current.process;
          const address = stepAddress(job.id, step, bench.recipe);
          return (
            <li key={`${step.id} ${step.process}`} className={isStrip ? "" : "border-b border-rule"}>
              {isStrip ? (
                <Link
                  to={address}
                  aria-current={isCurrent ? "step" : undefined}
                  className={`block px-2 py-1 hover:bg-card ${isCurrent ? "bg-card font-semibold shadow-[inset_0_-3px_0_var(--color-ink)]" : ""}`}
                >
                  {step.title}
                </Link>
              ) : (
                <Link
                  to={address}
                  aria-current={isCurrent ? "step" : undefined}
                  className={`grid grid-cols-[1.25rem_1fr] px-4 py-2 hover:bg-card ${isCurrent ? "bg-card shadow-[inset_3px_0_0_var(--color-ink)]" : ""}`}
                >
                  <span className="text-soft">{i + 1}</span>
                  <span className={isCurrent ? "font-semibold" : ""}>{step.title}</span>
                  <span className="col-start-2 truncate text-xs text-soft">{step.summarise(bench)}</span>
                </Link>
              )}
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** When it is due, and what it waits for. */
function Standing() {
  const id = useId();
  const job = useJob((state) => state.job);
  const patch = useJob((state) => state.patch);
  return (
    <>
      <div className="grid grid-cols-[auto_1fr] items-center gap-3 py-0.5">
        <label htmlFor={id}>Due</label>
        <input
          id={id}
          type="date"
          className="min-w-0 rounded-[3px] border border-edge bg-card px-1.5 py-0.5"
          value={job.dueDay ?? ""}
          onChange={(event) => void patch({ dueDay: event.target.value || null })}
        />
      </div>
      {job.state !== "new" && job.state !== "making" && (
        <p role="status" className={`text-xs ${job.state === "changed" ? "text-wrong" : "text-soft"}`}>
          {sayState(job)}
        </p>
      )}
    </>
  );
}

/** How the job is made: a choice where there is one. */
function MadeWith() {
  const process = useJob((state) => state.recipe.process);
  const edit = useJob((state) => state.edit);
  const options = allProcessScreens().map(({ process: { id, name } }) => ({ value: id, text: name }));
  const [only, ...others] = options;
  if (only && others.length === 0) return <p className="mt-2 text-soft">Made with {only.text.toLowerCase()}</p>;
  return (
    <SelectField
      label="Made with"
      value={process}
      options={options}
      onChange={(chosen) => edit((r) => ({ ...r, process: chosen }))}
    />
  );
}

function UndoRedo() {
  const save = useJob((state) => state.save);
  const job = useJob((state) => state.job);
  const { undo, redo } = useMoves();
  const isDirty = save.kind === "unsaved" || save.kind === "refused" || save.kind === "retrying";
  return (
    <div className="flex gap-2">
      <Button className="flex-1" disabled={job.undo === null && !isDirty} onClick={undo} title="Ctrl+Z">
        Undo
      </Button>
      <Button className="flex-1" disabled={job.redo === null} onClick={redo} title="Ctrl+Shift+Z">
        Redo
      </Button>
    </div>
  );
}
