// Every request of the shop's pages, by name.
import {
  type Board,
  type BoardSearch,
  boardSchema,
  type HeadMove,
  isOver,
  type Job,
  type JobPatch,
  jobSchema,
  type KeptMotif,
  keptMotifSchema,
  type ListedTypeface,
  listedTypefaceSchema,
  type Mail,
  type MotifCreate,
  type MotifDetail,
  type MotifEdition,
  type MotifPage,
  type MotifPatch,
  type MotifSearch,
  mailListSchema,
  motifDetailSchema,
  motifImportSchema,
  motifPageSchema,
  type ProofSend,
  placementListSchema,
  type RecipeSave,
  type Room,
  type RoomPart,
  type Run,
  roomPartSchema,
  roomSchema,
  runListSchema,
  runSchema,
  type SettingsSave,
  type ShopNote,
  type ShopPlacement,
  type ShopProof,
  type ShopStock,
  type StockFormat,
  type StockImport,
  shelfSchema,
  shopPlacementSchema,
  shopProofListSchema,
  shopProofSchema,
  shopStockSchema,
  stockImportSchema,
  type TypefaceKind,
  typefaceListSchema,
} from "@plain-palette/contract";
import { type Motif, motifSchema } from "@plain-palette/core/motif";
import { type Proof, proofSchema } from "@plain-palette/core/proof";
import { type ShopSettings, type StockKind, shopSettingsSchema } from "@plain-palette/core/shelf";
import { v4 as newId } from "uuid";
import { z } from "zod";
import { AGAIN_MS, untilTaken } from "./again.ts";
import { type FileSending, request, sendFile, withFile, withJson } from "./requests.ts";

export const api = {
  searchBoard: (search: BoardSearch): Promise<Board> => request(boardSchema, `/board?${queryOf(search)}`),
  findJob: (id: string): Promise<Job> => request(jobSchema, `/jobs/${id}`),
  patchJob: (id: string, patch: JobPatch): Promise<Job> => request(jobSchema, `/jobs/${id}`, withJson("PATCH", patch)),
  copyJob: (id: string): Promise<Job> => request(jobSchema, `/jobs/${id}/copy`, { method: "POST" }),
  savePicture: (id: string, version: number, picture: Blob): Promise<null> =>
    request(z.null(), `/jobs/${id}/picture?version=${version}`, {
      method: "PUT",
      body: picture,
      headers: { "Content-Type": "image/webp" },
    }),
  saveRecipe: (id: string, save: RecipeSave): Promise<Job> =>
    request(jobSchema, `/jobs/${id}/recipes`, withJson("POST", save)),
  moveHead: (id: string, move: HeadMove): Promise<Job> => request(jobSchema, `/jobs/${id}/head`, withJson("PUT", move)),
  listRuns: (id: string): Promise<Run[]> => request(runListSchema, `/jobs/${id}/runs`),
  startRun: (id: string, recipeVersion: number): Promise<Run> =>
    request(runSchema, `/jobs/${id}/runs`, withJson("POST", { recipeVersion })),
  listPlacements: (): Promise<ShopPlacement[]> => request(placementListSchema, "/placements"),
  listPlacementsPutAway: (): Promise<ShopPlacement[]> => request(placementListSchema, "/placements/put-away"),
  placements: listDeeds("/placements", shopPlacementSchema),
  listShelf: (): Promise<ShopStock[]> => request(shelfSchema, "/shelf"),
  listStockPutAway: (): Promise<ShopStock[]> => request(shelfSchema, "/shelf/put-away"),
  stock: listDeeds("/shelf", shopStockSchema),
  takeInStock: (file: File, kind: StockKind): Promise<StockImport> =>
    request(stockImportSchema, `/shelf/file?kind=${kind}`, withFile(file)),
  readSettings: (): Promise<ShopSettings> => request(shopSettingsSchema, "/settings"),
  changeSettings: (patch: SettingsSave): Promise<ShopSettings> =>
    request(shopSettingsSchema, "/settings", withJson("PATCH", patch)),
  listTypefaces: (): Promise<ListedTypeface[]> => request(typefaceListSchema, "/typefaces"),
  addTypeface: (file: File, kind: TypefaceKind): Promise<ListedTypeface> =>
    request(listedTypefaceSchema, `/typefaces?kind=${kind}&${nameOf(file)}`, withFile(file)),
  changeTypeface: (id: string, kind: TypefaceKind): Promise<ListedTypeface> =>
    request(listedTypefaceSchema, `/typefaces/${id}`, withJson("PATCH", { kind })),
  putTypefaceAway: (id: string): Promise<null> => request(z.null(), `/typefaces/${id}`, { method: "DELETE" }),
  listProofs: (id: string): Promise<ShopProof[]> => request(shopProofListSchema, `/jobs/${id}/proofs`),
  proofBody: (id: string, proof: string): Promise<Proof> => request(proofSchema, `/jobs/${id}/proofs/${proof}`),
  sendProof: (id: string, send: ProofSend): Promise<ShopProof> =>
    request(shopProofSchema, `/jobs/${id}/proofs`, withJson("POST", send)),
  sayOnProof: (id: string, proof: string, note: ShopNote): Promise<ShopProof> =>
    request(shopProofSchema, `/jobs/${id}/proofs/${proof}/notes`, withJson("POST", note)),
  remindClient: (id: string, proof: string): Promise<null> =>
    request(z.null(), `/jobs/${id}/proofs/${proof}/reminder`, { method: "POST" }),
  withdrawProof: (id: string, proof: string): Promise<ShopProof> =>
    request(shopProofSchema, `/jobs/${id}/proofs/${proof}/withdrawal`, { method: "POST" }),
  readRoom: (): Promise<Room> => request(roomSchema, "/room"),
  tidyRoom: (): Promise<RoomPart[]> => request(z.array(roomPartSchema), "/room/tidy", { method: "POST" }),
  listMails: (): Promise<Mail[]> => request(mailListSchema, "/mails"),
  findMotifs: (search: MotifSearch): Promise<MotifPage> => request(motifPageSchema, `/motifs?${queryOf(search)}`),
  motifDetail: (id: string): Promise<MotifDetail> => request(motifDetailSchema, `/motifs/${id}`),
  motifContent: (hash: string): Promise<Motif> => request(motifSchema, `/motifs/contents/${hash}`),
  keepMotif: (create: MotifCreate): Promise<KeptMotif> => request(keptMotifSchema, "/motifs", withJson("POST", create)),
  changeMotif: (id: string, patch: MotifPatch): Promise<MotifDetail> =>
    request(motifDetailSchema, `/motifs/${id}`, withJson("PATCH", patch)),
  addMotifEdition: (id: string, edition: MotifEdition): Promise<MotifDetail> =>
    request(motifDetailSchema, `/motifs/${id}/editions`, withJson("POST", edition)),
  motifEditionFromFile: (id: string, version: number, file: File): Promise<MotifDetail> =>
    request(motifDetailSchema, `/motifs/${id}/editions/file?version=${version}&${nameOf(file)}`, withFile(file)),
  takeInMotifs: async (file: File): Promise<KeptMotif[]> =>
    (await request(motifImportSchema, `/motifs/files?${nameOf(file)}`, withFile(file))).kept,
  stopRun: (id: string): Promise<Run> => request(runSchema, `/runs/${id}/stop`, { method: "POST" }),
};

/** What is done to a list of the shop's: each names the version that was seen, and may be sent again. */
function listDeeds<Thing extends { readonly id: string; readonly version: number }>(
  path: string,
  schema: z.ZodType<Thing>,
) {
  return {
    add: ({ version: _, ...thing }: Thing): Promise<Thing> => request(schema, path, withJson("POST", thing)),
    change: ({ id, ...thing }: Thing): Promise<Thing> => request(schema, `${path}/${id}`, withJson("PUT", thing)),
    putAway: ({ id, version }: Thing): Promise<Thing> =>
      request(schema, `${path}/${id}?version=${version}`, { method: "DELETE", keepalive: true }),
    return: ({ id, version }: Thing): Promise<Thing> =>
      request(schema, `${path}/${id}/return?version=${version}`, { method: "POST", keepalive: true }),
  };
}

/** A new job of a client's file: made once, however often it has to be sent. */
export function uploadJob(sending: FileSending): Promise<Job> {
  return sendUntilTaken(`/jobs?id=${newId()}&${nameOf(sending.file)}`, sending);
}

/** A better version of a job's file. */
export function replaceArtwork(id: string, basedOn: number, sending: FileSending): Promise<Job> {
  const path = `/jobs/${id}/artwork?basedOn=${basedOn}&saveId=${newId()}&${nameOf(sending.file)}`;
  return sendUntilTaken(path, sending);
}

async function sendUntilTaken(path: string, sending: FileSending): Promise<Job> {
  const warn = (event: Event) => event.preventDefault();
  // A file is not kept in the browser: whoever leaves is asked first.
  window.addEventListener("beforeunload", warn);
  try {
    return await untilTaken(
      () => sendFile(jobSchema, path, sending),
      ({ retryAfterS }) => sending.onSending(retryAfterS === null ? "away" : "full house"),
      sending.signal,
    );
  } finally {
    window.removeEventListener("beforeunload", warn);
  }
}

/** What is asked for, without what is left open. */
function queryOf(wanted: Readonly<Record<string, string | number | undefined>>): string {
  const said = Object.entries(wanted).flatMap(([key, value]) => (value === undefined ? [] : [[key, `${value}`]]));
  return new URLSearchParams(said).toString();
}

const nameOf = (file: File) => `name=${encodeURIComponent(file.name.slice(0, 200))}`;

export const thumbnailUrl = (hash: string): string => `/api/artworks/${hash}/thumbnail`;
/** How the result of a version looks. */
export const jobPictureUrl = (id: string, version: number): string => `/api/jobs/${id}/picture?version=${version}`;
/** How a content of a motif looks: an SVG. */
export const motifPictureUrl = (hash: string): string => `/api/motifs/contents/${hash}/picture`;
export const motifFileUrl = (id: string): string => `/api/motifs/${id}/file`;
export const proofPdfUrl = (id: string, proof: string): string => `/api/jobs/${id}/proofs/${proof}/pdf`;
export const motifArchiveUrl = "/api/motifs/archive";
export const artworkFileUrl = (hash: string): string => `/api/artworks/${hash}/file`;
export const stockFileUrl = (format: StockFormat): string => `/api/shelf/file?format=${format}`;
/** `as`: the name under which the browser saves it. */
export const runFileUrl = (id: string, name: string, as: string): string =>
  `/api/runs/${id}/files/${name}?as=${encodeURIComponent(as)}`;
/** All files of a run as one archive. */
export const runArchiveUrl = (id: string, as: string): string => `/api/runs/${id}/archive?as=${encodeURIComponent(as)}`;

/** Calls back with a run whenever it changes, until it is over or the returned function is called. */
export function watchRun(id: string, onChange: (run: Run) => void): () => void {
  let events: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const listen = () => {
    events = new EventSource(`/api/runs/${id}/events`);
    events.onmessage = (event) => {
      const run = runSchema.parse(JSON.parse(event.data));
      onChange(run);
      if (isOver(run.state)) events.close();
    };
    // A browser goes on listening by itself after a lost line, but not after an answer that is an error.
    events.onerror = () => {
      if (events.readyState === EventSource.CLOSED) timer = setTimeout(listen, AGAIN_MS);
    };
  };
  listen();
  return () => {
    clearTimeout(timer);
    events.close();
  };
}
