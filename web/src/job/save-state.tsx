// Whether what was decided is saved: said wherever a job is changed.
import { useJob } from "./use-job.ts";

export function SaveState({ className = "" }: { className?: string }) {
  const save = useJob((state) => state.save);
  const head = useJob((state) => state.job.head);
  const texts = {
    saved: `Saved, version ${head}`,
    unsaved: "Saving soon",
    saving: "Saving",
    retrying: "Not saved yet",
    refused: "Not saved",
    conflict: "Two versions",
  };
  return (
    <p role="status" className={`text-xs text-soft ${className}`} data-testid="save-state">
      {texts[save.kind]}
      {save.kind === "refused" && (
        <span className="block text-wrong">
          {[save.problem.title, save.problem.detail, save.problem.cure]
            .filter(Boolean)
            .join(". ")
            .replaceAll("..", ".")}
        </span>
      )}
      {save.kind === "retrying" && <span className="block text-wrong">{save.why}; trying again</span>}
    </p>
  );
}
