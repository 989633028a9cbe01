// Every request of the shop's pages, by name.
import {
  type Board,
  type BoardSearch,
  boardSchema,
  type HeadMove,
  type Job,
  type JobCard,
  type JobPatch,
  jobListSchema,
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
import type { Placement } from "@plain-palette/core/recipe";
import {
  type ShopSettings,
  type ShopSettingsPatch,
  type Stock,
  type StockKind,
  shopSettingsSchema,
} from "@plain-palette/core/shelf";
import { z } from "zod";
import { type OnSending, request, sendFile, withFile, withJson } from "./requests.ts";

export const api = {
  listJobs: (): Promise<JobCard[]> => request(jobListSchema, "/jobs"),
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
  addPlacement: (placement: Placement): Promise<ShopPlacement> =>
    request(shopPlacementSchema, "/placements", withJson("POST", placement)),
  changePlacement: (id: string, placement: Placement & { version: number }): Promise<ShopPlacement> =>
    request(shopPlacementSchema, `/placements/${id}`, withJson("PUT", placement)),
  listPlacementsPutAway: (): Promise<ShopPlacement[]> => request(placementListSchema, "/placements/put-away"),
  removePlacement: ({ id, version }: ShopPlacement): Promise<ShopPlacement> =>
    request(shopPlacementSchema, `/placements/${id}?version=${version}`, { method: "DELETE" }),
  returnPlacement: ({ id, version }: ShopPlacement): Promise<ShopPlacement> =>
    request(shopPlacementSchema, `/placements/${id}/return?version=${version}`, { method: "POST" }),
  listShelf: (): Promise<ShopStock[]> => request(shelfSchema, "/shelf"),
  addStock: (stock: Stock): Promise<ShopStock> => request(shopStockSchema, "/shelf", withJson("POST", stock)),
  changeStock: (id: string, stock: Stock & { version: number }): Promise<ShopStock> =>
    request(shopStockSchema, `/shelf/${id}`, withJson("PUT", stock)),
  listStockPutAway: (): Promise<ShopStock[]> => request(shelfSchema, "/shelf/put-away"),
  removeStock: ({ id, version }: ShopStock): Promise<ShopStock> =>
    request(shopStockSchema, `/shelf/${id}?version=${version}`, { method: "DELETE" }),
  returnStock: ({ id, version }: ShopStock): Promise<ShopStock> =>
    request(shopStockSchema, `/shelf/${id}/return?version=${version}`, { method: "POST" }),
  takeInStock: (file: File, kind: StockKind): Promise<StockImport> =>
    request(stockImportSchema, `/shelf/file?kind=${kind}`, withFile(file)),
  readSettings: (): Promise<ShopSettings> => request(shopSettingsSchema, "/settings"),
  changeSettings: (patch: ShopSettingsPatch): Promise<ShopSettings> =>
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

/** A new job of a client's file. */
export function uploadJob(file: File, onSending: OnSending, signal: AbortSignal): Promise<Job> {
  return sendFile(jobSchema, `/jobs?${nameOf(file)}`, file, onSending, signal);
}

/** A better version of a job's file. */
export function replaceArtwork(
  id: string,
  basedOn: number,
  file: File,
  onSending: OnSending,
  signal: AbortSignal,
): Promise<Job> {
  return sendFile(jobSchema, `/jobs/${id}/artwork?basedOn=${basedOn}&${nameOf(file)}`, file, onSending, signal);
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
  const events = new EventSource(`/api/runs/${id}/events`);
  events.onmessage = (event) => {
    const run = runSchema.parse(JSON.parse(event.data));
    onChange(run);
    if (run.state !== "queued" && run.state !== "running") events.close();
  };
  return () => events.close();
}
