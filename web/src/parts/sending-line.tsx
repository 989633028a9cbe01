// A file on its way: how far it is, or what it waits for.
import { tryNow } from "../api/again.ts";
import type { Sending } from "../api/requests.ts";
import { Button } from "./button.tsx";

/** At 1 the server looks at the file. */
function sendingWords(sending: Sending): string {
  if (sending === "full house") return "Waits until there is room";
  if (sending === "away") return "Waits for the server";
  return sending < 1 ? `${Math.round(sending * 100)} % sent` : "Looking at it ...";
}

interface Props {
  readonly name: string;
  readonly sending: Sending;
  onCancel(): void;
}

export function SendingLine({ name, sending, onCancel }: Props) {
  return (
    <div className="flex flex-wrap items-center gap-3 border border-rule bg-card px-3 py-2">
      <span className="w-56 truncate">{name}</span>
      <progress
        className="h-2 min-w-24 flex-1 accent-ink"
        value={typeof sending === "number" ? sending : undefined}
        max={1}
        aria-label={`Sending ${name}`}
      />
      <span role="status" className="w-40 text-right text-soft">
        {sendingWords(sending)}
      </span>
      {typeof sending === "string" && <Button onClick={tryNow}>Try now</Button>}
      <Button onClick={onCancel}>Cancel</Button>
    </div>
  );
}
