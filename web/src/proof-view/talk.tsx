// What shop and client have said to each other on a proof, pin by pin, with the answers under what they answer.
import type { ProofNote } from "@plain-palette/contract";
import type { Pin } from "./proof-picture.tsx";

interface Props {
  readonly notes: readonly ProofNote[];
  /** Who reads it. */
  readonly reader: "shop" | "client";
  readonly shopName: string;
  readonly replyTo: string | null;
  /** Begins an answer, or ends it (null); none may be given if it is left out. */
  onReply?(id: string | null): void;
}

export function Talk({ notes, reader, shopName, replyTo, onReply }: Props) {
  const roots = rootsOf(notes);
  if (roots.length === 0) return <p className="text-soft">Nothing has been said yet.</p>;
  return (
    <ol aria-label="What was said" className="grid gap-2">
      {roots.map((root, k) => (
        <li key={root.id} className="border border-rule bg-card px-3 py-2">
          <Said note={root} number={k + 1} reader={reader} shopName={shopName} />
          {repliesTo(notes, root.id).map((note) => (
            <div key={note.id} className="mt-1 border-l-2 border-rule pl-3">
              <Said note={note} number={null} reader={reader} shopName={shopName} />
            </div>
          ))}
          {onReply && (
            <button
              type="button"
              className="mt-1 underline underline-offset-2"
              aria-pressed={replyTo === root.id}
              onClick={() => onReply(replyTo === root.id ? null : root.id)}
            >
              {replyTo === root.id ? "Answering this" : `Answer ${k + 1}`}
            </button>
          )}
        </li>
      ))}
    </ol>
  );
}

/** What begins something; answers to answers belong to it, too. */
function rootsOf(notes: readonly ProofNote[]): ProofNote[] {
  return notes.filter(({ replyTo }) => replyTo === null || !notes.some(({ id }) => id === replyTo));
}

function repliesTo(notes: readonly ProofNote[], id: string): ProofNote[] {
  return notes.filter((note) => note.replyTo === id).flatMap((note) => [note, ...repliesTo(notes, note.id)]);
}

interface SaidProps {
  readonly note: ProofNote;
  readonly number: number | null;
  readonly reader: Props["reader"];
  readonly shopName: string;
}

function Said({ note, number, reader, shopName }: SaidProps) {
  const who = note.by === "shop" ? (reader === "shop" ? "You" : shopName) : note.name;
  const when = new Date(note.createdAt).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });
  return (
    <div className="[overflow-wrap:anywhere]">
      <p className="flex flex-wrap items-center gap-x-2 text-xs text-soft">
        {number !== null && (
          <span
            className={`inline-grid size-4 place-items-center rounded-full text-[10px] font-semibold text-white ${note.by === "shop" ? "bg-ink" : "bg-next"}`}
          >
            {number}
          </span>
        )}
        <b className="font-semibold text-ink">{who}</b>
        {note.kind === "change" && <span className="text-wrong">to be changed</span>}
        <span>{when}</span>
      </p>
      <p className="whitespace-pre-wrap">{note.text}</p>
    </div>
  );
}

/** Pins of what was said, numbered as it is listed, and of what the checks found. */
export function pinsOf(
  notes: readonly ProofNote[],
  remarks: readonly { readonly at: { readonly x: number; readonly y: number } | null }[],
): Pin[] {
  const said = rootsOf(notes).flatMap(({ at, by }, k) => (at ? [{ ...at, by, number: k + 1 }] : []));
  const found = remarks.flatMap(({ at }, k) => (at ? [{ ...at, by: "check" as const, number: k + 1 }] : []));
  return [...found, ...said];
}
