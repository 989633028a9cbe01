// How smoothly the light table pans with a great many shapes, in Chromium, moved by a real pointer.
import type { Page } from "@playwright/test";
import { type BenchShop, inShop } from "./open-shop.ts";

/** 71 x 71 stars of ten nodes: 5041 shapes and 50,410 nodes. */
const ACROSS = 71;
const CELL_PX = 48;
const COLOURS = ["#d8412f", "#14304f", "#f2b134", "#1f7a8c"] as const;

function starsSvg(): string {
  const side = ACROSS * CELL_PX;
  const stars: string[] = [];
  for (let i = 0; i < ACROSS * ACROSS; i++) {
    const x = ((i % ACROSS) + 0.5) * CELL_PX;
    const y = (Math.floor(i / ACROSS) + 0.5) * CELL_PX;
    const points = Array.from({ length: 10 }, (_, k) => {
      const angle = (k * Math.PI) / 5 + i;
      const radius = CELL_PX * (k % 2 === 0 ? 0.46 : 0.22);
      return `${(x + radius * Math.cos(angle)).toFixed(3)} ${(y + radius * Math.sin(angle)).toFixed(3)}`;
    });
    stars.push(`<path fill="${COLOURS[i % COLOURS.length]}" d="M${points.join("L")}Z"/>`);
  }
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${side}" height="${side}"><rect width="${side}" height="${side}" fill="#fff"/>${stars.join("")}</svg>`;
}

/** Runs in the page, where nothing of ours is: plain text. */
const NOTE_FRAMES = `
  frames = [];
  last = performance.now();
  isNoting = true;
  note = (now) => {
    if (!isNoting) return;
    frames.push(now - last);
    last = now;
    requestAnimationFrame(note);
  };
  requestAnimationFrame(note);
`;

/** Pans to and fro over the table for some seconds and returns the time of every frame, ms. */
async function pan(page: Page): Promise<number[]> {
  const box = await page.getByLabel(/^Light table/).boundingBox();
  if (!box) throw new Error("no light table");
  const at = (turn: number): [number, number] => [
    box.x + box.width * (0.5 + 0.4 * Math.cos(turn)),
    box.y + box.height * (0.5 + 0.4 * Math.sin(turn * 1.3)),
  ];
  await page.mouse.move(...at(0));
  await page.mouse.down();
  await page.evaluate(NOTE_FRAMES);
  for (let step = 1; step <= 400; step++) await page.mouse.move(...at(step / 40));
  const frames: number[] = await page.evaluate("isNoting = false, frames");
  await page.mouse.up();
  return frames.slice(1);
}

/** Prints frames a second while panning, for several ways of looking and distances. */
export const measureTable = () => inShop(panInShop);

async function panInShop({ url, browser, addJob }: BenchShop): Promise<void> {
  const job = await addJob("stars.png", starsSvg());
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/jobs/${job.id}/shapes`);
  await page.waitForTimeout(500);
  await page.getByTestId("busy").waitFor({ state: "detached", timeout: 300_000 });
  const count = (of: string) => page.getByTestId(`${of}-count`).textContent();
  console.log(`${await count("shape")} shapes, ${await count("node")} nodes`);
  const table: Record<string, Record<string, string>> = {};
  for (const look of ["Result", "Outlines", "Split"]) {
    await page.getByRole("radio", { name: look, exact: true }).click();
    for (const [distance, name] of [
      ["all of it", "Show all"],
      ["true size", "True size"],
    ] as const) {
      await page.getByRole("button", { name }).click();
      await page.waitForTimeout(3000);
      const frames = (await pan(page)).sort((a, b) => a - b);
      const seconds = frames.reduce((sum, ms) => sum + ms, 0) / 1000;
      const at = (share: number) => frames[Math.min(frames.length - 1, Math.floor(frames.length * share))];
      table[`${look}, ${distance}`] = {
        "frames a second": (frames.length / seconds).toFixed(0),
        "95 % of frames within, ms": at(0.95).toFixed(0),
        "slowest, ms": at(1).toFixed(0),
      };
    }
  }
  console.table(table);
}
