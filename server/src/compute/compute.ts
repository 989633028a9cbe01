// The work that is done outside the server's own process: reading what people send, and making what they order.
import type { FiledMotif, StockFile } from "@plain-palette/core/formats";
import type { Proof } from "@plain-palette/core/proof";
import type { MadeFile } from "@plain-palette/core/recipe";
import type { StockKind } from "@plain-palette/core/shelf";
import type { ArtworkView, ReadFont } from "../intake/index.ts";
import type { FilesTask, Making, Progress, ProofTask } from "./making.ts";
import type { Outcome } from "./outcome.ts";
import type { PixelCache } from "./pixel-cache.ts";
import type { PackedPixels } from "./pixels.ts";
import { Overrun, type PoolState, startPool, type Terms } from "./process-pool.ts";
import type { Inspection, NamedFile, Reading } from "./reading.ts";

/** Who asks, and whether anybody still waits for the answer. */
export interface Asker {
  readonly client: string;
  readonly signal?: AbortSignal;
}

/** An artwork as it is stored: its bytes are read only when its pixels are not kept. */
export interface StoredArtwork {
  readonly hash: string;
  readonly view: ArtworkView;
  bytes(): Promise<Uint8Array>;
}

export interface Compute {
  /** A new artwork, whose pixels are kept under its hash. */
  inspect(hash: string, bytes: Uint8Array, asker: Asker): Promise<Outcome<Omit<Inspection, "pixels">>>;
  pixels(artwork: StoredArtwork, asker: Asker): Promise<Outcome<PackedPixels>>;
  readFont(bytes: Uint8Array, asker: Asker): Promise<Outcome<ReadFont>>;
  readMotifs(file: NamedFile, asker: Asker): Promise<Outcome<FiledMotif[]>>;
  readStock(bytes: Uint8Array, kind: StockKind, asker: Asker): Promise<Outcome<StockFile>>;
  makeProof(task: ProofTask, asker: Asker): Promise<{ proof: Proof; pdf: Uint8Array }>;
  packMotifs(motifs: readonly FiledMotif[], asker: Asker): Promise<Uint8Array>;
  makeFiles(task: FilesTask, onProgress: (progress: Progress) => void, signal: AbortSignal): Promise<MadeFile[]>;
  /** Somebody looks at what will be made: a process comes up meanwhile. */
  getReadyToMake(): void;
  state(): { reading: PoolState; making: PoolState };
  close(): Promise<void>;
}

/** Longest that making a proof may take, s. */
const PROOF_S = 120;

const READER = {
  tasks: "reading",
  limits: { memory: 3e9, processorS: 150 },
  niceness: 5,
  mostWaiting: 200,
  idleS: 10,
} as const;
const MAKER = {
  tasks: "making",
  limits: { memory: 8e9, processorS: 3600 },
  niceness: 10,
  mostWaiting: 50,
  idleS: 120,
} as const;

/** Of which client runs are, in the queue of the making processes. */
const RUNS = "runs";
const FIRST_VIEW: ArtworkView = { page: 1, drawnWidthPx: null };

export interface ComputeOptions {
  /** Most of each kind. */
  readonly processes: number;
  /** Longest that reading one file may take, s. */
  readonly readingS: number;
  /** Longest that making a job's files may take, s. */
  readonly makingS: number;
  readonly cache: PixelCache;
}

export function startCompute({ processes, readingS, makingS, cache }: ComputeOptions): Compute {
  const reading = startPool({ ...READER, least: 1, most: processes });
  const making = startPool({ ...MAKER, least: 0, most: processes });

  async function read<Name extends keyof Reading>(
    name: Name,
    input: Parameters<Reading[Name]>[0],
    asker: Asker,
    what: string,
  ): Promise<Awaited<ReturnType<Reading[Name]>>> {
    try {
      const outcome = await reading.run({ name, input }, { ...asker, timeS: readingS });
      return outcome as Awaited<ReturnType<Reading[Name]>>;
    } catch (error) {
      if (!(error instanceof Overrun)) throw error;
      const message = `${what} takes more time or memory to read than there is. Save it again, smaller or in another format.`;
      return { ok: false, message, status: 422 } as Awaited<ReturnType<Reading[Name]>>;
    }
  }

  const make = <Name extends keyof Making>(name: Name, input: Parameters<Making[Name]>[0], terms: Terms) =>
    making.run({ name, input }, terms) as ReturnType<Making[Name]>;

  return {
    async inspect(hash, bytes, asker) {
      const outcome = await read("inspect", { bytes }, asker, "The picture");
      if (!outcome.ok) return outcome;
      const { pixels, ...value } = outcome.value;
      await cache.put(keyOf(hash, FIRST_VIEW), pixels);
      return { ok: true, value };
    },
    async pixels({ hash, view, bytes }, asker) {
      const key = keyOf(hash, view);
      const kept = await cache.get(key);
      if (kept) return { ok: true, value: kept };
      const outcome = await read("pixels", { bytes: await bytes(), view }, asker, "The picture");
      if (outcome.ok) await cache.put(key, outcome.value);
      return outcome;
    },
    readFont: (bytes, asker) => read("font", { bytes }, asker, "The font"),
    readMotifs: (file, asker) => read("motifs", file, asker, "The file"),
    readStock: (bytes, kind, asker) => read("stock", { bytes, kind }, asker, "The file"),
    makeProof: (task, asker) => make("proof", task, { ...asker, timeS: PROOF_S }),
    packMotifs: (motifs, asker) => make("archive", motifs, { ...asker, timeS: PROOF_S }),
    makeFiles: (task, onProgress, signal) =>
      make("files", task, {
        client: RUNS,
        timeS: makingS,
        signal,
        onProgress: (progress) => onProgress(progress as Progress),
      }),
    getReadyToMake: () => making.standBy(),
    state: () => ({ reading: reading.state(), making: making.state() }),
    async close() {
      await Promise.all([reading.close(), making.close()]);
    },
  };
}

function keyOf(hash: string, { page, drawnWidthPx }: ArtworkView): string {
  return `${hash}.${page}.${drawnWidthPx ?? "as-fits"}`;
}
