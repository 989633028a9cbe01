// A shop to measure in, with jobs of drawings.
import { type Job, jobSchema, OWN_HEADER } from "@plain-palette/contract";
import type { Browser } from "@playwright/test";
import sharp from "sharp";
import { openThrowAwayShop } from "../throw-away-shop.ts";

export interface BenchShop {
  readonly url: string;
  readonly browser: Browser;
  /** A job of a drawing, sent as a PNG of its own size. */
  addJob(name: string, svg: string): Promise<Job>;
}

/** Closed again when `work` has ended, however it ends. */
export async function inShop(work: (shop: BenchShop) => Promise<void>): Promise<void> {
  const { server, browser, close } = await openThrowAwayShop();
  const { url } = server;
  const addJob = async (name: string, svg: string) => {
    const created = await fetch(`${url}/api/jobs?name=${name}`, {
      method: "POST",
      body: new Uint8Array(await sharp(Buffer.from(svg)).png().toBuffer()),
      headers: { "Content-Type": "application/octet-stream", [OWN_HEADER]: "bench" },
    });
    return jobSchema.parse(await created.json());
  };
  try {
    await work({ url, browser, addJob });
  } finally {
    await close();
  }
}
