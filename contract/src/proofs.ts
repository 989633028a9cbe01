// Proofs as they travel between server, shop and client, and the mail that tells of them.
import { proofSchema } from "@plain-palette/core/proof";
import { z } from "zod";

const placeSchema = z.object({ x: z.number().min(-10_000).max(10_000), y: z.number().min(-10_000).max(10_000) });
const daySchema = z.iso.date();
const textSchema = z.string().trim().min(1).max(2000);
const nameSchema = z.string().trim().min(1).max(80);

/** What shop and client say to each other on a proof; `at` is a pin on the print, mm from its top left corner. */
export const proofNoteSchema = z.object({
  id: z.uuid(),
  by: z.enum(["shop", "client"]),
  /** A question, an answer or a remark; or what is to be changed. */
  kind: z.enum(["note", "change"]),
  replyTo: z.uuid().nullable(),
  at: placeSchema.nullable(),
  name: z.string(),
  text: z.string(),
  createdAt: z.iso.datetime(),
});
export type ProofNote = z.infer<typeof proofNoteSchema>;

const answersSchema = z.object({
  sentAt: z.iso.datetime(),
  endsAt: z.iso.datetime(),
  yes: z.object({ name: z.string(), day: daySchema, at: z.iso.datetime() }).nullable(),
  /** A newer one was sent since. */
  isReplaced: z.boolean(),
  notes: z.array(proofNoteSchema),
});

/** What the client's link opens. */
export const clientProofSchema = answersSchema.extend({ proof: proofSchema });
export type ClientProof = z.infer<typeof clientProofSchema>;

/** A proof as the shop lists it. */
export const shopProofSchema = answersSchema.extend({
  id: z.uuid(),
  number: z.number().int(),
  recipeVersion: z.number().int(),
  withdrawnAt: z.iso.datetime().nullable(),
  /** The client's link. */
  link: z.string(),
  /** Whether what the client saw is what the version in force would show. */
  isCurrent: z.boolean(),
});
export type ShopProof = z.infer<typeof shopProofSchema>;
export const shopProofListSchema = z.array(shopProofSchema);

/** How long a link stays open if nothing else is said, days. */
export const USUAL_DAYS = 30;
export const proofSendSchema = z.object({
  recipeVersion: z.number().int().min(1),
  days: z.number().int().min(1).max(365).default(USUAL_DAYS),
});
export type ProofSend = z.input<typeof proofSendSchema>;

const noteFields = {
  kind: proofNoteSchema.shape.kind.default("note"),
  replyTo: z.uuid().nullable().default(null),
  at: placeSchema.nullable().default(null),
  text: textSchema,
};
export const shopNoteSchema = z.object(noteFields);
export type ShopNote = z.input<typeof shopNoteSchema>;
export const clientNoteSchema = z.object({ ...noteFields, name: nameSchema });
export type ClientNote = z.input<typeof clientNoteSchema>;
export const clientYesSchema = z.object({ name: nameSchema, day: daySchema });
export type ClientYes = z.infer<typeof clientYesSchema>;

/** A message to a client: kept in the practice bench's mailbox, and sent where the shop has a mail server. */
export const mailSchema = z.object({
  id: z.uuid(),
  jobId: z.uuid(),
  kind: z.enum(["ready", "question", "reminder"]),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  link: z.string(),
  createdAt: z.iso.datetime(),
  state: z.enum(["kept", "sent", "failed"]),
  error: z.string().nullable(),
});
export type Mail = z.infer<typeof mailSchema>;
export const mailListSchema = z.array(mailSchema);
