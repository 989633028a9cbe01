// Motifs: the shop's finished designs, found by picture, words, folder and colour; filed, brought in, given out.
import type { KeptMotif, ListedMotif } from "@plain-palette/contract";
import { useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useState } from "react";
import { useDropzone } from "react-dropzone";
import { api, motifArchiveUrl, motifPictureUrl } from "../api/client.ts";
import { readAnew } from "../api/read-anew.ts";
import { Button } from "../parts/button.tsx";
import { count } from "../parts/count.ts";
import { ProblemNote, problemOf } from "../parts/problem.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { SearchField } from "../parts/search-field.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { useMotifs } from "../shop/use-motifs.ts";
import { FilterBar, type MotifFilter, NO_FILTER, searchOf } from "./filter-bar.tsx";
import { MotifSheet } from "./motif-sheet.tsx";

const MOTIF_FILES = { "image/svg+xml": [".svg"], "application/pdf": [".pdf"], "application/zip": [".zip"] };
/** So many at first, and more each time. */
const SHOWN = 60;

export function Motifs() {
  const [words, setWords] = useState("");
  const [filter, setFilter] = useState<MotifFilter>(NO_FILTER);
  const [most, setMost] = useState(SHOWN);
  const [openId, setOpenId] = useState<string | null>(null);
  const wanted = useDeferredValue(words);
  const found = useMotifs({ ...searchOf(filter), words: wanted, most });
  const { notes, takeIn, dismiss } = useFilesTakenIn();
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    ...{ noClick: true, noKeyboard: true, accept: MOTIF_FILES },
    onDrop: (files) => void takeIn(files),
  });
  const close = () => {
    if (openId) document.getElementById(cardId(openId))?.focus();
    setOpenId(null);
  };
  const change = (next: MotifFilter) => {
    setFilter(next);
    setMost(SHOWN);
  };
  return (
    <div {...getRootProps()} className="min-h-full">
      <ShopHead title="Motifs">
        <SearchField
          label="Search motifs"
          placeholder="Name, folder, words, colour"
          value={words}
          onChange={setWords}
        />
        <a
          href={motifArchiveUrl}
          download="motifs.zip"
          className="rounded-[3px] border border-edge bg-card px-2.5 py-1 text-[13px] leading-5 hover:border-ink"
        >
          All as an archive
        </a>
        <Button look="next" onClick={open}>
          Bring in SVG, PDF, archive
        </Button>
      </ShopHead>
      <main
        id="work"
        tabIndex={-1}
        className="grid grid-cols-[1fr_auto] items-start gap-6 px-8 py-5 narrow:grid-cols-1 narrow:px-4"
      >
        <div className="min-w-0">
          <input {...getInputProps({ "aria-label": "Files of motifs" })} />
          <TakenIn notes={notes} dismiss={dismiss} />
          <QueryProblem query={found} />
          <FilterBar filter={filter} folders={found.data?.folders ?? []} onChange={change} />
          <p role="status" className="pb-2 text-xs text-soft">
            {found.data ? count(found.data.total, "motif") : "Looking for motifs ..."}
          </p>
          {found.data?.total === 0 && <Nothing isFiltered={words !== "" || filter !== NO_FILTER} />}
          <ul aria-label="Motifs" className="grid grid-cols-[repeat(auto-fill,minmax(10rem,1fr))] gap-3">
            {found.data?.motifs.map((motif) => (
              <li key={motif.id}>
                <Card motif={motif} isOpen={motif.id === openId} onOpen={() => setOpenId(motif.id)} />
              </li>
            ))}
          </ul>
          {found.data && found.data.total > most && (
            <Button className="mt-4" onClick={() => setMost(Math.min(200, most + SHOWN))}>
              More: {found.data.total - most}
            </Button>
          )}
        </div>
        {openId && <MotifSheet key={openId} id={openId} folders={found.data?.folders ?? []} onClose={close} />}
      </main>
      {isDragActive && (
        <div className="pointer-events-none fixed inset-4 grid place-items-center border-2 border-dashed border-next bg-sheet/85 text-lg font-semibold">
          Let go: SVG and PDF become motifs, archives are taken over
        </div>
      )}
    </div>
  );
}

const cardId = (id: string) => `motif-${id}`;

function Nothing({ isFiltered }: { isFiltered: boolean }) {
  return (
    <p className="border border-dashed border-soft/60 bg-sheet p-8 text-center">
      {isFiltered
        ? "No motif is like that."
        : "No motifs are kept yet. Keep shapes of a job under Shapes, Motifs, or drop an SVG, a PDF or another shop's archive here."}
    </p>
  );
}

function Card({ motif, isOpen, onOpen }: { motif: ListedMotif; isOpen: boolean; onOpen(): void }) {
  const { name, folder, hash, widthMm, heightMm, spots, jobs } = motif;
  return (
    <button
      type="button"
      id={cardId(motif.id)}
      aria-pressed={isOpen}
      aria-label={`${name}${folder ? `, in ${folder}` : ""}`}
      className={`grid w-full border bg-card text-left hover:border-ink ${isOpen ? "border-ink" : "border-rule"}`}
      onClick={onOpen}
    >
      <span className="grid h-32 place-items-center bg-table p-3">
        <img src={motifPictureUrl(hash)} alt="" loading="lazy" className="max-h-26 max-w-full object-contain" />
      </span>
      <span className="grid gap-0.5 border-t border-rule px-2 py-1.5 text-xs leading-4">
        <span className="truncate text-sm font-semibold">{name}</span>
        <span className="truncate text-soft">{folder || "In no folder"}</span>
        <span className="flex min-w-0 items-center gap-1">
          {spots.slice(0, 8).map((spot) => (
            <span
              key={spot.hex + spot.name}
              className="h-2 w-3 border border-soft/40"
              style={{ background: spot.hex }}
            />
          ))}
          <span className="ml-auto whitespace-nowrap text-soft">
            {widthMm.toFixed(0)} × {heightMm.toFixed(0)} mm
          </span>
        </span>
        <span className="text-soft">{jobs === 0 ? "In no job" : `In ${count(jobs, "job")}`}</span>
      </span>
    </button>
  );
}

interface Note {
  readonly name: string;
  readonly kept: readonly KeptMotif[] | null;
  readonly problem: ReturnType<typeof problemOf> | null;
}

/** Files that are taken in, one after the other; each says what it brought. */
function useFilesTakenIn() {
  const queries = useQueryClient();
  const [notes, setNotes] = useState<readonly Note[]>([]);
  const takeIn = async (files: readonly File[]) => {
    for (const file of files) {
      const note = await api.takeInMotifs(file).then(
        (kept): Note => ({ name: file.name, kept, problem: null }),
        (error): Note => ({ name: file.name, kept: null, problem: problemOf(error) }),
      );
      setNotes((old) => [...old.filter(({ name }) => name !== file.name), note]);
      await readAnew(queries, ["motifs"]);
    }
  };
  return { notes, takeIn, dismiss: (gone: Note) => setNotes((old) => old.filter((one) => one !== gone)) };
}

function TakenIn({ notes, dismiss }: { notes: readonly Note[]; dismiss(note: Note): void }) {
  return (
    <ul aria-label="Files taken in" className="grid gap-2 empty:hidden">
      {notes.map((note) => (
        <li key={note.name} className="mb-2">
          {note.problem && <ProblemNote problem={note.problem} onClose={() => dismiss(note)} />}
          {note.kept && (
            <p role="status" className="border-l-4 border-next bg-card px-4 py-2">
              {sayKept(note.name, note.kept)}
            </p>
          )}
        </li>
      ))}
    </ul>
  );
}

function sayKept(file: string, kept: readonly KeptMotif[]): string {
  const fresh = kept.filter(({ isNew }) => isNew).length;
  const there = kept.length - fresh;
  const rest = there > 0 ? `, ${there} there already` : "";
  return `${file}: ${count(fresh, "motif")} taken over${rest}.`;
}
