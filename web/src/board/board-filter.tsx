// What of the board is looked at: what waits for whom, how it is made, in which order, as cards or as a list.
import { type Board, type BoardSearch, JOB_STATES, type JobState } from "@plain-palette/contract";
import { allProcesses } from "@plain-palette/core/processes";
import { useId } from "react";
import { STATE_WAITS, STATE_WORDS } from "../job/states.ts";
import { Choice } from "../parts/choice.tsx";

export interface BoardLook {
  readonly state: JobState | null;
  readonly process: string | null;
  readonly sort: NonNullable<BoardSearch["sort"]>;
  readonly as: "cards" | "list";
}

const SORTS = { newest: "newest first", due: "by due day", changed: "changed last", client: "by client" } as const;
const FIELD = "rounded-[3px] border border-edge bg-card px-1.5 py-1";

interface Props {
  readonly look: BoardLook;
  readonly counts: Board["counts"];
  onChange(look: BoardLook): void;
}

export function BoardFilter({ look, counts, onChange }: Props) {
  const id = useId();
  const countOf = (state: JobState) => counts.find((one) => one.state === state)?.jobs ?? 0;
  const all = counts.reduce((sum, { jobs }) => sum + jobs, 0);
  const chip = (state: JobState | null, text: string, jobs: number) => (
    <button
      key={text}
      type="button"
      aria-pressed={look.state === state}
      className={`border px-2.5 py-1 ${look.state === state ? "border-ink bg-ink text-white" : "border-rule bg-card hover:border-ink"} ${jobs === 0 && look.state !== state ? "text-soft" : ""}`}
      onClick={() => onChange({ ...look, state })}
    >
      {text} <b className="font-semibold">{jobs}</b>
      {state !== null && STATE_WAITS[state] === "client" && <span className="sr-only">, waits for the client</span>}
    </button>
  );
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2">
      <fieldset aria-label="What they wait for" className="flex basis-full flex-wrap gap-1">
        {chip(null, "All", all)}
        {JOB_STATES.map((state) => chip(state, STATE_WORDS[state], countOf(state)))}
      </fieldset>
      <span className="flex items-center gap-2">
        <label htmlFor={`${id}-process`}>Made with</label>
        <select
          id={`${id}-process`}
          className={FIELD}
          value={look.process ?? ""}
          onChange={(event) => onChange({ ...look, process: event.target.value || null })}
        >
          <option value="">anything</option>
          {allProcesses().map((process) => (
            <option key={process.id} value={process.id}>
              {process.name.toLowerCase()}
            </option>
          ))}
        </select>
      </span>
      <span className="flex items-center gap-2">
        <label htmlFor={`${id}-sort`}>Order</label>
        <select
          id={`${id}-sort`}
          className={FIELD}
          value={look.sort}
          onChange={(event) => onChange({ ...look, sort: event.target.value as BoardLook["sort"] })}
        >
          {Object.entries(SORTS).map(([sort, text]) => (
            <option key={sort} value={sort}>
              {text}
            </option>
          ))}
        </select>
      </span>
      <Choice
        label="Shown as"
        value={look.as}
        options={[
          { value: "cards", text: "Cards" },
          { value: "list", text: "List" },
        ]}
        isSmall
        onChange={(as: BoardLook["as"]) => onChange({ ...look, as })}
      />
    </div>
  );
}
