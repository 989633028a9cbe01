// What all requests have in common: how they are known, and errors as RFC 9457 problem documents.
import { z } from "zod";

/**
 * The name that a window of ours, or a program, gives itself. No form and no page of others can send such a header, so
 * that writes without an Origin are known by it; and the server gives each of them its turn.
 */
export const OWN_HEADER = "Plain-Palette-Window";

/** A problem document. `kept` says what was not lost, `cure` what to do. */
export const problemSchema = z.object({
  type: z.string().default("about:blank"),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  kept: z.string().optional(),
  cure: z.string().optional(),
  /** With 409: the version that was stored beside the head, and the head itself. */
  stored: z.number().int().optional(),
  head: z.number().int().optional(),
  /** With a file that was read line by line: what is wrong where. */
  lines: z.array(z.object({ line: z.number().int(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problemSchema>;
