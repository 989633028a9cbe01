// Everything done to the artwork, in order: switched off and on, changed, moved, taken out.
import { type Action, isUpright } from "@plain-palette/core/recipe";
import { X } from "lucide-react";
import { useJob } from "../../job/use-job.ts";
import { Button } from "../../parts/button.tsx";
import { SortableGroups, useSortableRow } from "../../parts/sortable.tsx";
import { describeAction, sectionOf } from "./action-words.ts";
import type { ChangeDesk } from "./desk.ts";
import { changeAction, moveAction, removeAction } from "./edit-actions.ts";
import type { SectionProps } from "./section-props.ts";

export function ActionList({ computed, desk, change, mmPerPx }: SectionProps) {
  const actions = useJob((state) => state.recipe.artwork.actions);
  const edit = useJob((state) => state.edit);
  if (actions.length === 0)
    return (
      <p className="mt-4 border-t border-rule pt-2 text-xs text-soft">
        Nothing done to the picture yet. Whatever you do is listed here and can be switched off, changed or undone.
      </p>
    );
  // Upright ones come first whatever their place: they are shown as they are done.
  const groups = [actions.filter(isUpright), actions.filter((action) => !isUpright(action))].filter(
    (group) => group.length > 0,
  );
  const off = computed.prepared?.misfits.size ?? 0;
  return (
    <section aria-label="Done to the artwork" className="mt-4 border-t border-rule pt-2">
      <h2 className="pb-1 font-semibold">Done to the artwork</h2>
      {off > 0 && (
        <p role="note" className="pb-1 text-xs text-wrong">
          {off === 1 ? "One of these does" : `${off} of these do`} nothing here any more; it is said beside it.
        </p>
      )}
      <SortableGroups
        groups={groups.map((group) => group.map(({ id }) => id))}
        onMove={(id, toPlaceOf) => edit((r) => moveAction(r, id, toPlaceOf))}
      >
        {(_, i) => (
          <ol className={`border-x border-b border-rule bg-card ${i === 0 ? "border-t" : ""}`}>
            {groups[i]?.map((action) => (
              <ActionRow
                key={action.id}
                action={action}
                words={describeAction(action, mmPerPx)}
                misfit={computed.prepared?.misfits.get(action.id) ?? null}
                isInFocus={desk.focusId === action.id}
                change={change}
              />
            ))}
          </ol>
        )}
      </SortableGroups>
    </section>
  );
}

interface RowProps {
  readonly action: Action;
  readonly words: string;
  readonly misfit: string | null;
  readonly isInFocus: boolean;
  readonly change: ChangeDesk;
}

function ActionRow({ action, words, misfit, isInFocus, change }: RowProps) {
  const edit = useJob((state) => state.edit);
  const { row, grip } = useSortableRow(action.id, `Move "${words}"`);
  const remove = () => {
    change({ tool: null, focusId: null });
    edit((r) => removeAction(r, action.id));
  };
  return (
    <li
      {...row}
      className={`flex items-center gap-1 border-t border-rule px-1 first:border-t-0 ${isInFocus ? "bg-sheet shadow-[inset_3px_0_0_var(--color-ink)]" : ""}`}
    >
      {grip}
      <input
        type="checkbox"
        aria-label={`${words}: in force`}
        checked={action.isOn}
        onChange={(event) => edit((r) => changeAction(r, { ...action, isOn: event.target.checked }))}
      />
      <button
        type="button"
        aria-pressed={isInFocus}
        className={`min-w-0 flex-1 truncate px-1 py-1 text-left hover:underline ${action.isOn ? "" : "text-soft line-through"}`}
        title={`${words}. Change it`}
        onClick={() => change(isInFocus ? { focusId: null, tool: null } : takeUp(action))}
      >
        {words}
        {misfit && <span className="block truncate text-xs text-wrong no-underline">{misfit}</span>}
      </button>
      <Button look="quiet" className="px-1" aria-label={`Take out "${words}"`} onClick={remove}>
        <X size={14} />
      </Button>
    </li>
  );
}

/** What is on the desk when an action is taken up again. */
function takeUp(action: Action): Parameters<ChangeDesk>[0] {
  const base = { section: sectionOf(action), focusId: action.id, draft: null, tool: null };
  switch (action.kind) {
    case "crop":
      return { ...base, tool: { kind: "crop", id: action.id } };
    case "keystone":
      return { ...base, tool: { kind: "corners", id: action.id } };
    case "move-piece":
      return { ...base, tool: { kind: "carry", id: action.id } };
    default:
      return base;
  }
}
