// Where the shop's pages are, so that server and web agree on what there is none of.
import { JOB_STEPS } from "./jobs.ts";

/** Pages beside those of jobs. */
export const SHOP_PAGES = ["/", "/shelf", "/motifs", "/typefaces", "/practice", "/settings", "/room"] as const;

/** Whose page an address is: the shop's, or that of a step of a job; null: there is none. */
export function pageAt(path: string): { readonly job: string | null } | null {
  const bare = path.length > 1 ? path.replace(/\/$/, "") : path;
  if (SHOP_PAGES.some((page) => page === bare)) return { job: null };
  const [, job = "", step = null] = /^\/jobs\/([0-9a-f-]{36})(?:\/([a-z]+))?$/.exec(bare) ?? [];
  return job !== "" && (step === null || JOB_STEPS.some((one) => one === step)) ? { job } : null;
}
