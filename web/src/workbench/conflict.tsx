// Two people on one job: both versions are kept, and a person says which goes on.
import { useJob } from "../job/use-job.ts";
import { Button } from "../parts/button.tsx";
import { goOnAt } from "../parts/go-on-at.ts";

export function ConflictNote() {
  const save = useJob((state) => state.save);
  const resolve = useJob((state) => state.resolve);
  if (save.kind !== "conflict") return null;
  const goOn = (side: "ours" | "theirs") => {
    void resolve(side);
    goOnAt(
      () => document.getElementById("work"),
      `This job goes on with ${side === "ours" ? "your" : "their"} change.`,
    );
  };
  return (
    <div
      role="alert"
      className="flex items-center gap-3 border-b border-rule border-l-4 border-l-wrong bg-card px-4 py-2"
    >
      <p className="flex-1">
        <b>Somebody else changed this job meanwhile.</b> Your change is kept as version {save.stored}, theirs is version{" "}
        {save.head}.
      </p>
      <Button onClick={() => goOn("theirs")}>Go on with theirs</Button>
      <Button look="next" onClick={() => goOn("ours")}>
        Go on with mine
      </Button>
    </div>
  );
}
