// Typefaces: what the shop can set, with samples in the words of its jobs; its own are added, named by kind, put away.
import { type ListedTypeface, TYPEFACE_KINDS, type TypefaceKind } from "@plain-palette/contract";
import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { api } from "../api/client.ts";
import { Button } from "../parts/button.tsx";
import { ProblemNote } from "../parts/problem.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { SearchField } from "../parts/search-field.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { TypefaceSample } from "../parts/typeface-sample.tsx";
import { useWrites } from "../parts/use-writes.ts";
import { KIND_WORDS, matchesTypeface, sayEmbedding } from "../shop/typeface-words.ts";

const FONT_FILES = ".ttf,.otf,.woff,.woff2";
const USUAL_WORDS = "Harbour Bakery 1947";

export function Typefaces() {
  const [wanted, setWanted] = useState("");
  const [kind, setKind] = useState<TypefaceKind | "">("");
  const [words, setWords] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const listed = useQuery({ queryKey: ["typefaces"], queryFn: api.listTypefaces });
  const board = useQuery({ queryKey: ["jobs", "board", {}], queryFn: () => api.searchBoard({}) });
  const { problem, write, forget } = useWrites("typefaces");
  const sample = words ?? board.data?.jobs.find(({ client }) => client !== "")?.client ?? USUAL_WORDS;
  const shown = (listed.data ?? []).filter((one) => (kind === "" || one.kind === kind) && matchesTypeface(one, wanted));
  const families = [...new Set(shown.map(({ family }) => family))];
  const add = async (files: readonly File[]) => {
    setSaid(null);
    for (const file of files) {
      const added = await write(() => api.addTypeface(file, kind === "" ? "other" : kind));
      if (added) setSaid(`${added.family} ${added.style} is added.`);
    }
  };
  return (
    <div className="min-h-full">
      <ShopHead title="Typefaces">
        <SearchField label="Search typefaces" placeholder="Name, kind, script" value={wanted} onChange={setWanted} />
        <AddFonts onPick={(files) => void add(files)} />
      </ShopHead>
      <main id="work" tabIndex={-1} className="mx-auto max-w-5xl px-8 narrow:px-4 py-5">
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        <QueryProblem query={listed} />
        {said && !problem && (
          <p role="status" className="mb-3 border-l-4 border-next bg-card px-4 py-2">
            {said}
          </p>
        )}
        <SampleFields words={sample} kind={kind} onWords={setWords} onKind={setKind} />
        {listed.isPending && <p role="status">Looking for typefaces ...</p>}
        {listed.data && families.length === 0 && (
          <p className="border border-dashed border-soft/60 bg-sheet p-8 text-center">
            None of these has {wanted ? `"${wanted}" in its name` : "been added yet"}.
          </p>
        )}
        <ul aria-label="Families">
          {families.map((family) => (
            <Family
              key={family}
              styles={shown.filter((one) => one.family === family)}
              words={sample}
              onKind={(one, next) => void write(() => api.changeTypeface(one.id, next))}
              onPutAway={(one) => {
                setSaid(`${one.family} ${one.style} is put away; jobs that are set in it keep it.`);
                void write(() => api.putTypefaceAway(one.id));
              }}
            />
          ))}
        </ul>
      </main>
    </div>
  );
}

interface SampleProps {
  readonly words: string;
  readonly kind: TypefaceKind | "";
  onWords(words: string): void;
  onKind(kind: TypefaceKind | ""): void;
}

function SampleFields({ words, kind, onWords, onKind }: SampleProps) {
  const id = useId();
  return (
    <div className="mb-3 flex flex-wrap items-center gap-x-6 gap-y-2">
      <span className="flex min-w-64 flex-1 items-center gap-2">
        <label htmlFor={`${id}-words`}>Words</label>
        <input
          id={`${id}-words`}
          dir="auto"
          maxLength={80}
          className="min-w-0 flex-1 rounded-[3px] border border-edge bg-card px-2 py-1"
          value={words}
          onChange={(event) => onWords(event.target.value)}
        />
      </span>
      <span className="flex items-center gap-2">
        <label htmlFor={`${id}-kind`}>Kind</label>
        <KindChoice id={`${id}-kind`} value={kind} hasAll onChange={onKind} />
      </span>
    </div>
  );
}

interface KindProps<T extends string> {
  readonly id?: string;
  readonly label?: string;
  readonly value: T;
  readonly hasAll?: boolean;
  onChange(kind: T): void;
}

function KindChoice<T extends TypefaceKind | "">({ id, label, value, hasAll = false, onChange }: KindProps<T>) {
  return (
    <select
      id={id}
      aria-label={label}
      className="rounded-[3px] border border-edge bg-card px-1.5 py-1"
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
    >
      {hasAll && <option value="">All kinds</option>}
      {TYPEFACE_KINDS.map((one) => (
        <option key={one} value={one}>
          {KIND_WORDS[one]}
        </option>
      ))}
    </select>
  );
}

interface FamilyProps {
  readonly styles: readonly ListedTypeface[];
  readonly words: string;
  onKind(typeface: ListedTypeface, kind: TypefaceKind): void;
  onPutAway(typeface: ListedTypeface): void;
}

function Family({ styles, words, onKind, onPutAway }: FamilyProps) {
  const [first] = styles;
  if (!first) return null;
  const { family, scripts } = first;
  const shipped = styles.find(({ origin }) => origin.kind === "shipped");
  return (
    <li className="grid grid-cols-[1fr_15rem] gap-x-6 border-t border-rule bg-card px-4 py-2 narrow:grid-cols-1">
      <div className="min-w-0">
        {styles.map((one) => (
          <TypefaceSample key={one.id} typeface={one} words={words} size={30} />
        ))}
      </div>
      <div className="text-xs leading-5">
        <h2 className="text-sm font-semibold">{family}</h2>
        <p>{styles.map(({ style }) => style).join(", ")}</p>
        <p className="text-soft">{scripts.join(", ")}</p>
        {shipped?.origin.kind === "shipped" && (
          <p className="text-soft">
            {KIND_WORDS[shipped.kind]}; {shipped.origin.licence}
          </p>
        )}
        {styles.map((one) => {
          if (one.origin.kind === "shipped") return null;
          return (
            <div key={one.id} className="flex flex-wrap items-center gap-2 pt-1">
              <KindChoice
                label={`Kind of ${family} ${one.style}`}
                value={one.kind}
                onChange={(kind) => onKind(one, kind)}
              />
              <Button aria-label={`Put ${family} ${one.style} away`} onClick={() => onPutAway(one)}>
                Put away
              </Button>
              <p className="w-full">
                {one.style}: {sayEmbedding(one.origin.fsType)}
              </p>
            </div>
          );
        })}
      </div>
    </li>
  );
}

function AddFonts({ onPick }: { onPick(files: readonly File[]): void }) {
  return (
    <label className="inline-flex cursor-pointer items-center rounded-[3px] border border-next bg-next px-2.5 py-1 text-[13px] leading-5 text-white focus-within:outline-2 focus-within:outline-offset-2">
      Add font files
      <input
        type="file"
        multiple
        accept={FONT_FILES}
        className="sr-only"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length > 0) onPick(files);
        }}
      />
    </label>
  );
}
