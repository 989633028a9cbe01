// The shop's motifs beside the table: looked for by word, placed with a click.
import type { ListedMotif } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { motifPictureUrl } from "../../../api/client.ts";
import { readAnew } from "../../../api/read-anew.ts";
import { Button } from "../../../parts/button.tsx";
import { count } from "../../../parts/count.ts";
import { goOnAt } from "../../../parts/go-on-at.ts";
import { problemOf } from "../../../parts/problem.tsx";
import { SearchField } from "../../../parts/search-field.tsx";
import { useMotifs } from "../../../shop/use-motifs.ts";
import type { ArtSize } from "../../drawn-trace.ts";
import { Group } from "../../panel.tsx";
import type { MotifDesk } from "./motif-desk.ts";

/** So many are shown at first, and more each time. */
const SHOWN = 12;

export function LibraryGroup({ desk, size }: { desk: MotifDesk; size: ArtSize }) {
  const { way, picked } = desk;
  const [words, setWords] = useState("");
  const [most, setMost] = useState(SHOWN);
  const [said, setSaid] = useState<string | null>(null);
  const found = useMotifs({ words, most });
  const queries = useQueryClient();
  const isReplacing = way === "pick";
  const place = async (motif: ListedMotif) => {
    const before = placedRows().length;
    try {
      await (isReplacing ? desk.replacePicked(motif) : desk.placeOne(motif, size));
      setSaid(`${motif.name} is placed${isReplacing ? ` in place of ${count(picked.length, "shape")}` : ""}.`);
      // It stands where it has to be moved and measured from here on.
      goOnAt(() => (placedRows().length > before ? document.querySelector<HTMLElement>(IN_HAND) : null));
      await readAnew(queries, ["motifs"]);
    } catch (error) {
      setSaid(`${motif.name} could not be placed: ${problemOf(error).title}`);
    }
  };
  return (
    <Group title={isReplacing ? "In place of the picked shapes" : "Place"}>
      <div className="flex items-center gap-2 pb-2">
        <SearchField
          label="Search motifs"
          placeholder="Name, folder, colour"
          value={words}
          onChange={(next) => {
            setWords(next);
            setMost(SHOWN);
          }}
        />
        <Link to="/motifs" className="text-xs underline">
          All motifs
        </Link>
      </div>
      <p role="status" className="text-xs text-soft">
        {said}
      </p>
      {found.data?.total === 0 && (
        <p className="text-xs text-soft">
          {words
            ? `No motif has "${words}" in it.`
            : "No motifs are kept yet: keep shapes of this job, or bring drawn art in."}
        </p>
      )}
      <ul aria-label="Motifs" className="grid grid-cols-3 gap-1.5 pt-1">
        {found.data?.motifs.map((motif) => (
          <li key={motif.id}>
            <button
              type="button"
              // Until the picture is worked out nobody knows where its middle is.
              disabled={desk.frame === null || (isReplacing && picked.length === 0)}
              title={`${motif.name}, ${sizeOf(motif)}`}
              aria-label={`Place ${motif.name}`}
              className="grid w-full border border-rule bg-card p-1 text-left hover:border-ink disabled:opacity-50"
              onClick={() => void place(motif)}
            >
              <span className="grid h-14 place-items-center">
                <img
                  src={motifPictureUrl(motif.hash)}
                  alt=""
                  loading="lazy"
                  className="max-h-14 max-w-full object-contain"
                />
              </span>
              <span className="truncate text-xs leading-5">{motif.name}</span>
            </button>
          </li>
        ))}
      </ul>
      {found.data && found.data.total > most && (
        <Button look="quiet" className="mt-1" onClick={() => setMost(most + 2 * SHOWN)}>
          More: {found.data.total - most}
        </Button>
      )}
    </Group>
  );
}

const PLACED = 'ol[aria-label="Placed motifs"]';
const IN_HAND = `${PLACED} button[aria-pressed="true"]`;
const placedRows = () => document.querySelectorAll(`${PLACED} > li`);

function sizeOf({ widthMm, heightMm }: ListedMotif): string {
  return `${widthMm.toFixed(1)} × ${heightMm.toFixed(1)} mm`;
}
