// Whether what was decided is saved, and what waits: said wherever a job is changed.
import { OutboxNote } from "../outbox/outbox-note.tsx";
import { useJob } from "./use-job.ts";

export function SaveState({ className = "" }: { className?: string }) {
  const id = useJob((state) => state.job.id);
  const save = useJob((state) => state.save);
  const head = useJob((state) => state.job.head);
  const moveProblem = useJob((state) => state.moveProblem);
  const texts = {
    saved: `Saved, version ${head}`,
    unsaved: "Saving soon",
    saving: "Saving",
    retrying: "Not saved yet",
    refused: "Not saved",
    conflict: "Two versions",
  };
  return (
    <div className={`text-xs ${className}`}>
      <p role="status" className="text-soft" data-testid="save-state">
        {texts[save.kind]}
        {save.kind === "refused" && (
          <span className="block text-wrong">
            {[save.problem.title, save.problem.detail, save.problem.cure]
              .filter(Boolean)
              .join(". ")
              .replaceAll("..", ".")}
          </span>
        )}
        {moveProblem && <span className="block text-wrong">{moveProblem.title}</span>}
      </p>
      <OutboxNote openJob={id} className="mt-2" />
    </div>
  );
}
