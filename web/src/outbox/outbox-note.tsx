// What waits for the server or for a person, wherever one is.
import { Link } from "react-router";
import { AgainLine } from "../parts/again-line.tsx";
import { Button } from "../parts/button.tsx";
import { count } from "../parts/count.ts";
import { ProblemNote } from "../parts/problem.tsx";
import type { Letter } from "./kept-letters.ts";
import type { Content } from "./letters.ts";
import { shopOutbox } from "./shop-outbox.ts";
import { useLetters } from "./use-letters.ts";

interface Props {
  /** Only those of this kind. */
  readonly kind?: Content["kind"];
  /** The job whose recipe says itself what became of it. */
  readonly openJob?: string;
  readonly className?: string;
}

export function OutboxNote({ kind, openJob, className = "" }: Props) {
  const letters = useLetters().filter(({ content }) => kind === undefined || content.kind === kind);
  const waiting = letters.filter(({ held }) => !held);
  const trouble = waiting.find((letter) => letter.trouble !== null)?.trouble;
  const held = letters.filter(
    (letter) => letter.held && !(letter.content.kind === "recipe" && letter.content.job === openJob),
  );
  if (trouble == null && held.length === 0) return null;
  return (
    <div className={`grid gap-2 ${className}`} data-testid="outbox">
      {trouble != null && <Waiting letters={waiting} why={trouble} />}
      {held.map((letter) => (
        <HeldNote key={letter.id} letter={letter} />
      ))}
    </div>
  );
}

function Waiting({ letters, why }: { letters: readonly Letter[]; why: string }) {
  // A job whose title was changed is named once, as it is called now.
  const named = new Map(letters.map(({ about: name, content }) => ["job" in content ? content.job : name, name]));
  const about = [...named.values()];
  return (
    <div role="status" className="border-l-4 border-wrong bg-card px-3 py-2">
      <p>
        <b>{why}.</b> {count(letters.length, "change")} {letters.length === 1 ? "waits" : "wait"}, kept in this browser
        also when it is closed: {about.slice(0, SHOWN).join(", ")}
        {about.length > SHOWN ? " and more." : "."}
      </p>
      <AgainLine className="mt-1 flex-wrap" />
    </div>
  );
}

/** So many are named. */
const SHOWN = 3;

/** What was not taken, until a person has seen it. */
function HeldNote({ letter: { id, about, content, held } }: { letter: Letter }) {
  if (held?.kind === "conflict" && content.kind === "recipe")
    return (
      <p role="alert" className="flex items-center gap-3 border-l-4 border-wrong bg-card px-4 py-2">
        <span className="flex-1">
          <b>Somebody else changed {about} meanwhile.</b> Your change is kept as version {held.stored}.
        </span>
        <Link to={`/jobs/${content.job}/artwork`} className="underline underline-offset-2">
          Choose which goes on
        </Link>
      </p>
    );
  if (held?.kind !== "refused") return null;
  return (
    <ProblemNote problem={held.problem}>
      <p className="mt-1 flex items-center gap-3">
        <span className="flex-1 text-soft">Not changed: {about}</span>
        {content.kind === "recipe" && (
          <Link to={`/jobs/${content.job}/artwork`} className="underline underline-offset-2">
            Open the job
          </Link>
        )}
        <Button onClick={() => shopOutbox.withdraw(id)}>Let it go</Button>
      </p>
    </ProblemNote>
  );
}
