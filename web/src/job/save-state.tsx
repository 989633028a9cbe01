// Whether what was decided is saved: said wherever a job is changed.
import { AgainLine } from "../parts/again-line.tsx";
import { useJob } from "./use-job.ts";

export function SaveState({ className = "" }: { className?: string }) {
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
    <div role="status" className={`text-xs text-soft ${className}`} data-testid="save-state">
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
      {save.kind === "retrying" && (
        <>
          <span className="block text-wrong">{save.why}.</span>
          <span className="block">Kept in this browser, also when it is closed.</span>
          <AgainLine />
        </>
      )}
    </div>
  );
}
