// PDF pages through poppler's own programs, in processes of their own: untrusted, bounded in time and memory, without any
// file or network of ours to reach (the page comes in on standard input and goes out as a PNG on standard output).
import { spawn } from "node:child_process";
import { IntakeError } from "./intake-error.ts";

/** Longest that a page may take, ms. */
const MAX_MS = 20_000;
/** Most memory that a page may take, kB. */
const MAX_KB = 4_000_000;
const MAX_OUTPUT = 512 * 1024 * 1024;

export interface PdfPage {
  readonly pages: number;
  /** Size of the page as it is looked at, points (1/72 in, ISO 32000-1). */
  readonly widthPt: number;
  readonly heightPt: number;
  /** A page without pictures is shapes; with some it may be a scan. */
  readonly content: "shapes" | "mixed";
}

/** What a PDF says of one of its pages. Throws an IntakeError for what is no good PDF, or has no such page. */
export async function readPdfPage(bytes: Uint8Array, page: number): Promise<PdfPage> {
  const text = new TextDecoder().decode(await run("pdfinfo", ["-f", `${page}`, "-l", `${page}`, "-"], bytes));
  const pages = Number(/^Pages:\s+(\d+)/m.exec(text)?.[1] ?? 0);
  if (pages < page) throw new IntakeError(`The PDF has ${pages} pages; there is no page ${page}.`);
  const size = /^Page\s+\d+\s+size:\s+([\d.]+) x ([\d.]+) pts/m.exec(text);
  const turn = Number(/^Page\s+\d+\s+rot:\s+(\d+)/m.exec(text)?.[1] ?? 0);
  const [width, height] = [Number(size?.[1]), Number(size?.[2])];
  if (!(width > 0 && height > 0)) throw damaged();
  const images = new TextDecoder().decode(
    await run("pdfimages", ["-list", "-f", `${page}`, "-l", `${page}`, "-"], bytes),
  );
  const isOnSide = turn % 180 !== 0;
  return {
    pages,
    widthPt: isOnSide ? height : width,
    heightPt: isOnSide ? width : height,
    // Two lines of heading come before the pictures.
    content: images.trim().split("\n").length > 2 ? "mixed" : "shapes",
  };
}

/** One page as a PNG of `widthPx` x `heightPx`, clear where the page is bare. */
export function drawPdfPage(bytes: Uint8Array, page: number, widthPx: number, heightPx: number): Promise<Uint8Array> {
  const range = ["-f", `${page}`, "-l", `${page}`, "-singlefile"];
  const size = ["-scale-to-x", `${widthPx}`, "-scale-to-y", `${heightPx}`];
  return run("pdftocairo", ["-png", "-transp", ...range, ...size, "-", "-"], bytes);
}

/** One page as SVG: its shapes as paths, its words as outlines. */
export function drawPdfPageAsSvg(bytes: Uint8Array, page: number): Promise<Uint8Array> {
  return run("pdftocairo", ["-svg", "-f", `${page}`, "-l", `${page}`, "-", "-"], bytes);
}

function damaged(): IntakeError {
  return new IntakeError("The PDF is damaged or ends too early. Ask for it again; the copy may have been cut off.");
}

/** Runs one of poppler's programs on a file. */
function run(program: string, args: readonly string[], input: Uint8Array): Promise<Uint8Array> {
  return new Promise((resolve, reject) => {
    const limited = ["-c", `ulimit -v ${MAX_KB}; exec "$0" "$@"`, program, ...args];
    const child = spawn("/bin/sh", limited, {
      timeout: MAX_MS,
      killSignal: "SIGKILL",
      stdio: ["pipe", "pipe", "pipe"],
    });
    const output: Buffer[] = [];
    let size = 0;
    let complaint = "";
    child.stdout.on("data", (piece: Buffer) => {
      size += piece.length;
      if (size > MAX_OUTPUT) child.kill("SIGKILL");
      else output.push(piece);
    });
    child.stderr.on("data", (piece: Buffer) => {
      if (complaint.length < 4096) complaint += piece.toString("latin1");
    });
    // A program that gives up early closes its input: its exit code tells why.
    child.stdin.on("error", () => {});
    child.on("error", reject);
    child.on("close", (code, signal) => {
      if (code === 0) resolve(Buffer.concat(output));
      else if (code === 127)
        reject(
          new IntakeError("PDFs cannot be read here: Debian's poppler-utils is missing. Install it, or send a PNG."),
        );
      else if (signal === "SIGKILL")
        reject(new IntakeError("The PDF takes too long to draw. Export the page as PNG or SVG.", 422));
      else if (/incorrect password/i.test(complaint))
        reject(new IntakeError("The PDF is locked with a password. Ask for one without."));
      else reject(damaged());
    });
    child.stdin.end(input);
  });
}
