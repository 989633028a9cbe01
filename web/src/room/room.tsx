// Room: what takes room in the shop, by which rule some of it goes, and how much the disk has left.
import type { RoomKind, RoomPart } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../api/client.ts";
import { Button } from "../parts/button.tsx";
import { count } from "../parts/count.ts";
import { ProblemNote } from "../parts/problem.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { useWrites } from "../parts/use-writes.ts";

/** How each is called, one of it, and what becomes of it. */
const KINDS: Readonly<Record<RoomKind, { title: string; one: string; rule: string }>> = {
  artworks: { title: "Clients' files", one: "file", rule: "Kept as long as any version of a job is of them." },
  versions: { title: "Versions of jobs", one: "version", rule: "All are kept: undo goes back to the first." },
  runs: {
    title: "Films and other files",
    one: "file",
    rule: "Of each job the last two makings are kept, others for a week.",
  },
  typefaces: { title: "The shop's typefaces", one: "file", rule: "Kept: jobs may be set in them." },
  pixels: {
    title: "Decoded pictures",
    one: "picture",
    rule: "Made again when they are needed; the longest unused go by themselves.",
  },
  dumps: { title: "Dumps from before a new version", one: "dump", rule: "The last five are kept." },
};

function sizeWords(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(1)} GB`;
  return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.ceil(bytes / 1e3)} kB`;
}

export function RoomPage() {
  const room = useQuery({ queryKey: ["room"], queryFn: api.readRoom });
  const { problem, write, forget } = useWrites("room");
  const [gone, setGone] = useState<readonly RoomPart[] | null>(null);
  const goes = room.data?.parts.filter((part) => part.goes.files > 0) ?? [];
  return (
    <div className="min-h-full">
      <ShopHead title="Room">
        <Button look="next" disabled={goes.length === 0} onClick={() => void write(() => api.tidyRoom()).then(setGone)}>
          Let go of what is not needed
        </Button>
      </ShopHead>
      <main id="work" tabIndex={-1} className="mx-auto max-w-5xl px-8 narrow:px-4 py-5">
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        <QueryProblem query={room} />
        {room.isPending && <p role="status">Looking at what there is ...</p>}
        {gone && !problem && (
          <p role="status" className="mb-3 border-l-4 border-next bg-card px-4 py-2">
            {gone.map(({ kind, goes: part }) => `${KINDS[kind].title}: ${sizeWords(part.bytes)}`).join(", ")} let go of.
          </p>
        )}
        {room.data && (
          <>
            <p className="mb-3" role="status">
              {room.data.freeBytes === null
                ? "The shop's disk is on another computer: how much it has left is not known here."
                : `The shop's disk has ${sizeWords(room.data.freeBytes)} left.`}
            </p>
            <table className="w-full border border-rule bg-sheet narrow:block">
              <thead className="text-left text-xs text-soft narrow:hidden">
                <tr>
                  {["What", "How much", "Not needed any more", "What becomes of it"].map((head) => (
                    <th key={head} scope="col" className="px-3 py-1 font-normal">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className="narrow:block">
                {room.data.parts.map((part) => (
                  <PartRow key={part.kind} {...part} />
                ))}
              </tbody>
            </table>
            <p className="mt-3 text-soft">
              This is looked through by itself every hour. A job that is put away keeps all it has; an upload that is
              broken off leaves nothing.
            </p>
          </>
        )}
      </main>
    </div>
  );
}

function PartRow({ kind, kept, goes }: RoomPart) {
  const { title, one, rule } = KINDS[kind];
  return (
    <tr aria-label={title} className="border-t border-rule align-baseline narrow:grid narrow:py-2">
      <th scope="row" className="px-3 py-1.5 text-left font-semibold">
        {title}
      </th>
      <td className="whitespace-nowrap px-3">
        {kept.files === 0 ? "–" : sizeWords(kept.bytes)}{" "}
        {kept.files > 0 && <span className="text-soft">in {count(kept.files, one)}</span>}
      </td>
      <td className="whitespace-nowrap px-3">
        {goes.files === 0 ? "–" : `${sizeWords(goes.bytes)} in ${count(goes.files, one)}`}
      </td>
      <td className="px-3 text-soft">{rule}</td>
    </tr>
  );
}
