// A file of stock is read as a whole: all of it, or what is wrong with it, line by line.
import { type Stock, stockSchema } from "../shelf/index.ts";

/** What is wrong with a file, and where. */
export interface LineProblem {
  readonly line: number;
  readonly message: string;
}

export type StockFile =
  | { readonly stock: readonly Stock[]; readonly problems: null }
  | { readonly stock: null; readonly problems: readonly LineProblem[] };

/** Takes stock as it is read, and what does not fit. */
export interface StockReading {
  /** Takes one that was read at a line; `title` is put before what is wrong with it. */
  take(line: number, stock: unknown, title?: string): void;
  fail(line: number, message: string): void;
  hasFailed(): boolean;
  finish(): StockFile;
}

export function startReading(): StockReading {
  const stock: Stock[] = [];
  const problems: LineProblem[] = [];
  const lines = new Map<string, number>();
  const fail = (line: number, message: string) => {
    problems.push({ line, message });
  };
  return {
    fail,
    take(line, candidate, title = "") {
      const parsed = stockSchema.safeParse(candidate);
      if (!parsed.success) {
        for (const { path, message } of parsed.error.issues)
          fail(line, `${title}${path.filter((part) => part !== "colour").join(" ")}: ${message}`);
        return;
      }
      const { kind, code } = parsed.data;
      const first = lines.get(`${kind} ${code}`);
      if (first !== undefined) fail(line, `${kind} ${code} is on line ${first} already`);
      lines.set(`${kind} ${code}`, line);
      stock.push(parsed.data);
    },
    hasFailed: () => problems.length > 0,
    finish() {
      if (stock.length === 0 && problems.length === 0) fail(1, "there is no stock in it");
      return problems.length > 0 ? { stock: null, problems } : { stock, problems: null };
    },
  };
}
