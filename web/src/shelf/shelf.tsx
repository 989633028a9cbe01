// The shelf: inks, transfer films, threads, stones and garments with their colours, changed where they stand, taken in from files and given out.
import type { ShopStock, StockImport } from "@plain-palette/contract";
import { formatHex } from "@plain-palette/core/colour";
import {
  FILM_FACT_KEYS,
  FILM_FACTS,
  type Film,
  type KeptStones,
  MOST_STONES,
  STOCK_KINDS,
  STOCK_WORDS,
  type Stock,
  type StockColour,
  type StockKind,
  stockRgb,
} from "@plain-palette/core/shelf";
import { STONE_SIZES } from "@plain-palette/core/trade";
import { useQuery } from "@tanstack/react-query";
import { X } from "lucide-react";
import { useId, useState } from "react";
import { v4 as newId } from "uuid";
import { api, stockFileUrl } from "../api/client.ts";
import { Button } from "../parts/button.tsx";
import { Choice } from "../parts/choice.tsx";
import { goOnAt } from "../parts/go-on-at.ts";
import { InPlaceText } from "../parts/in-place.tsx";
import { ProblemNote } from "../parts/problem.tsx";
import { QueryProblem } from "../parts/query-problem.tsx";
import { SearchField } from "../parts/search-field.tsx";
import { ShopHead } from "../parts/shop-head.tsx";
import { TakenOff } from "../parts/taken-off.tsx";
import { useWrites } from "../parts/use-writes.ts";
import { doToListed, useShelf } from "../shop/use-shop.ts";

export function Shelf() {
  const [kind, setKind] = useState<StockKind>("ink");
  const [wanted, setWanted] = useState("");
  const [taken, setTaken] = useState<StockImport | null>(null);
  const [removed, setRemoved] = useState<ShopStock | null>(null);
  const shelf = useShelf();
  const away = useQuery({ queryKey: ["shelf", "put-away"], queryFn: api.listStockPutAway });
  const { problem, write, forget } = useWrites("shelf");
  const ofKind = shelf.data?.filter((stock) => stock.kind === kind) ?? [];
  const shown = ofKind.filter(({ code, name, detail }) =>
    `${code} ${name} ${detail}`.toLowerCase().includes(wanted.trim().toLowerCase()),
  );
  const takeIn = async (picked: File) => {
    setRemoved(null);
    setTaken(await write(() => api.takeInStock(picked, kind)));
  };
  const add = () => {
    const codes = new Set(ofKind.map(({ code }) => code));
    let n = codes.size + 1;
    while (codes.has(`new-${n}`)) n++;
    const added = { id: newId(), version: 1, kind, code: `new-${n}`, name: "Not named yet" };
    doToListed({
      kind: "stock",
      deed: "add",
      thing: { ...added, colour: { space: "srgb", hex: "#808080" }, detail: "", film: null, stones: null },
    });
    setWanted("");
    goOnAt(() => nameFieldOf(added));
  };
  const putBack = (stock: ShopStock) => {
    setRemoved(null);
    doToListed({ kind: "stock", deed: "return", thing: stock });
    goOnAt(() => nameFieldOf(stock));
  };
  return (
    <div className="min-h-full">
      <ShopHead title="Shelf">
        <SearchField label="Search the shelf" placeholder="Code, name" value={wanted} onChange={setWanted} />
        <a className="py-1 underline underline-offset-2" href={stockFileUrl("csv")} download>
          Give out as CSV
        </a>
        <a className="py-1 underline underline-offset-2" href={stockFileUrl("cxf3")} download>
          as CxF3
        </a>
        <TakeInFile onPick={(picked) => void takeIn(picked)} />
        <Button look="next" onClick={add}>
          Add {STOCK_WORDS[kind].one}
        </Button>
      </ShopHead>
      <main id="work" tabIndex={-1} className="mx-auto max-w-5xl px-8 narrow:px-4 py-5">
        {problem && <ProblemNote problem={problem} onClose={forget} />}
        <QueryProblem query={shelf} />
        {taken && !problem && (
          <p role="status" className="mb-3 border-l-4 border-next bg-card px-4 py-2">
            {taken.added} added, {taken.changed} changed, {taken.same} as they were.
          </p>
        )}
        {removed && !shelf.data?.some(({ id }) => id === removed.id) && (
          <p role="status" className="mb-3 flex items-center gap-3 border-l-4 border-rule bg-card px-4 py-2">
            {removed.name} is off the shelf; jobs that print with it keep it.
            <Button onClick={() => putBack(removed)}>Put it back</Button>
          </p>
        )}
        <div className="mb-3 mt-1">
          <Choice
            label="What of the shelf"
            value={kind}
            options={STOCK_KINDS.map((value) => ({ value, text: STOCK_WORDS[value].many }))}
            onChange={(next) => setKind(next)}
          />
        </div>
        {shelf.isPending && <p role="status">Looking at the shelf ...</p>}
        {shelf.data && shown.length === 0 && (
          <p className="border border-dashed border-soft/60 bg-sheet p-8 text-center">
            {wanted ? `Nothing of these has "${wanted}" in it.` : "Nothing of these on the shelf yet."}
          </p>
        )}
        {shown.length > 0 && (
          <StockTable
            kind={kind}
            stock={shown}
            onChange={(stock, part) => doToListed({ kind: "stock", deed: "change", thing: { ...stock, ...part } })}
            onRemove={(stock) => {
              setTaken(null);
              setRemoved({ ...stock, version: stock.version + 1 });
              doToListed({ kind: "stock", deed: "putAway", thing: stock });
            }}
          />
        )}
        <TakenOff
          list="the shelf"
          things={away.data?.filter((stock) => stock.kind === kind) ?? []}
          lead={Lead}
          onReturn={putBack}
        />
      </main>
    </div>
  );
}

const nameFieldOf = ({ id }: Pick<ShopStock, "id">) =>
  document.querySelector<HTMLElement>(`[data-stock="${id}"] input[aria-label^="Name of"]`);

/** Colour and code of what was taken off. */
function Lead(stock: ShopStock) {
  return (
    <>
      <span
        aria-hidden="true"
        className="size-5 border border-rule"
        style={{ background: formatHex(stockRgb(stock)) }}
      />
      <span className="w-28 truncate">{stock.code}</span>
    </>
  );
}

/** A file of stock, in any of the formats that are known. */
function TakeInFile({ onPick }: { onPick(file: File): void }) {
  const id = useId();
  return (
    <label
      htmlFor={id}
      className="cursor-pointer rounded-[3px] border border-edge bg-card px-2.5 py-1 leading-5 hover:border-ink"
    >
      Take in a file
      <input
        id={id}
        type="file"
        accept=".csv,.txt,.cxf,.xml"
        aria-label="File of stock"
        className="sr-only"
        onChange={(event) => {
          const picked = event.target.files?.[0];
          event.target.value = "";
          if (picked) onPick(picked);
        }}
      />
    </label>
  );
}

interface TableProps {
  readonly kind: StockKind;
  readonly stock: readonly ShopStock[];
  onChange(stock: ShopStock, part: Partial<Stock>): void;
  onRemove(stock: ShopStock): void;
}

/** A number that a kind of stock is asked for besides: a narrow column. */
interface StockFact {
  readonly word: string;
  /** What an empty cell means. */
  readonly placeholder: string;
  valueOf(stock: Stock): number | null;
  /** What changes with another value; undefined where it is beyond its limits. */
  change(stock: Stock, value: number | null): Partial<Stock> | undefined;
}

const NO_FACTS: Film = { rollWidthMm: null, pricePerMetre: null, tackS: null, finalS: null, celsius: null };
const FILM_COLUMNS: readonly StockFact[] = FILM_FACT_KEYS.map((key) => ({
  word: FILM_FACTS[key].word,
  placeholder: "shop's",
  valueOf: ({ film }) => film?.[key] ?? null,
  change: ({ film }, value) => {
    const { min, max } = FILM_FACTS[key];
    return value === null || (value >= min && value <= max)
      ? { film: { ...NO_FACTS, ...film, [key]: value } }
      : undefined;
  },
}));

const NO_STONES = Object.fromEntries(STONE_SIZES.map((size) => [size, null])) as KeptStones;
const STONE_COLUMNS: readonly StockFact[] = STONE_SIZES.map((size) => ({
  word: size,
  placeholder: "–",
  valueOf: ({ stones }) => stones?.[size] ?? null,
  change: ({ stones }, value) =>
    value === null || (Number.isInteger(value) && value >= 0 && value <= MOST_STONES)
      ? { stones: { ...NO_STONES, ...stones, [size]: value } }
      : undefined,
}));

/** More columns than this are narrower still. */
const MANY = 5;

const COLUMNS: Partial<Readonly<Record<StockKind, readonly StockFact[]>>> = {
  "transfer-film": FILM_COLUMNS,
  stone: STONE_COLUMNS,
};

function StockTable({ kind, stock, onChange, onRemove }: TableProps) {
  const facts = COLUMNS[kind] ?? [];
  const words = facts.map(({ word }) => word);
  return (
    // On a phone it is moved sideways in its own box; what is only said aloud stays in it, too.
    <div className="relative overflow-x-auto">
      <table className="w-full min-w-[44rem] border border-rule bg-sheet">
        <thead className="text-left text-xs text-soft">
          <tr>
            {["Colour", "Code", "Name", "Value", ...words, "Detail"].map((head) => (
              <th key={head} scope="col" className="whitespace-nowrap px-2 py-1 font-normal">
                {head}
              </th>
            ))}
            <th scope="col">
              <span className="sr-only">Off the shelf</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {stock.map((one) => (
            <StockRow
              key={one.id}
              stock={one}
              facts={facts}
              onChange={(part) => onChange(one, part)}
              onRemove={() => onRemove(one)}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

interface RowProps {
  readonly stock: ShopStock;
  readonly facts: readonly StockFact[];
  onChange(part: Partial<Stock>): void;
  onRemove(): void;
}

function StockRow({ stock, facts, onChange, onRemove }: RowProps) {
  const { name, code, colour, detail } = stock;
  const hex = formatHex(stockRgb(stock));
  const isNarrow = facts.length > 0;
  return (
    <tr aria-label={name} data-stock={stock.id} className="border-t border-rule">
      <td className={`${isNarrow ? "w-16" : "w-28"} px-2 py-1`}>
        <input
          type="color"
          aria-label={`Colour of ${name}`}
          className="h-6 w-full border border-rule bg-card"
          value={hex}
          onChange={(event) => onChange({ colour: { space: "srgb", hex: event.target.value } })}
        />
      </td>
      <td className={`${isNarrow ? "w-18" : "w-28"} px-2`}>
        <InPlaceText
          label={`Code of ${name}`}
          text={code}
          className="w-full"
          onCommit={(text) => text.trim() && onChange({ code: text })}
        />
      </td>
      <td className={`${isNarrow ? "min-w-32" : ""} px-2`}>
        <InPlaceText
          label={`Name of ${name}`}
          text={name}
          className="w-full font-semibold"
          onCommit={(text) => text.trim() && onChange({ name: text })}
        />
      </td>
      <td className={`${isNarrow ? "w-24" : "w-52"} px-2`}>
        <InPlaceText
          label={`Value of ${name}`}
          text={writeColour(colour)}
          className="w-full"
          onCommit={(text) => {
            const read = readColour(text);
            if (read) onChange({ colour: read });
          }}
        />
      </td>
      {facts.map((fact) => (
        <td key={fact.word} className={`${facts.length > MANY ? "w-14 px-1" : "w-20 px-2"}`}>
          <InPlaceText
            label={`${fact.word} of ${name}`}
            text={fact.valueOf(stock)?.toString() ?? ""}
            placeholder={fact.placeholder}
            className="w-full placeholder:text-soft"
            onCommit={(text) => {
              const value = text.trim() === "" ? null : Number(text.replace(",", "."));
              const change = fact.change(stock, value);
              if (change) onChange(change);
            }}
          />
        </td>
      ))}
      <td className={`${isNarrow ? "w-24" : ""} px-2`}>
        <InPlaceText
          label={`Detail of ${name}`}
          text={detail}
          className="w-full"
          onCommit={(text) => onChange({ detail: text })}
        />
      </td>
      <td className="w-8">
        <Button look="quiet" className="px-1" aria-label={`Take ${name} off the shelf`} onClick={onRemove}>
          <X size={14} />
        </Button>
      </td>
    </tr>
  );
}

function writeColour(colour: StockColour): string {
  return colour.space === "srgb" ? colour.hex : `Lab ${colour.l} ${colour.a} ${colour.b}`;
}

/** "#1d2a44", or "Lab 30 -4 12" (D50); null where it is neither. */
function readColour(text: string): StockColour | null {
  const hex = /^#?([0-9a-f]{6})$/i.exec(text.trim())?.[1];
  if (hex) return { space: "srgb", hex: `#${hex.toLowerCase()}` };
  const [l, a, b, ...more] = [...text.matchAll(/-?\d+([.,]\d+)?/g)].map(([number]) => Number(number.replace(",", ".")));
  return l === undefined || a === undefined || b === undefined || more.length > 0 ? null : { space: "lab", l, a, b };
}
