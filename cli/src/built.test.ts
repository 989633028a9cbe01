// The shell as people run it: built, with threads that help. It must give what the source gives.
import { execFile } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { makeRecipe, makeShapeEntry } from "@plain-palette/core/recipe";
import sharp from "sharp";
import { afterAll, expect, it } from "vitest";

const run = promisify(execFile);
const ROOT = new URL("../..", import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), "plain-palette-built-"));

/** Large enough for threads to be started. */
const ART = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="3300" height="2475"><rect width="400" height="300" fill="#ffffff"/><circle cx="150" cy="150" r="110" fill="#d8412f"/><path d="M60 60L340 120L200 280Z" fill="#14304f"/><rect x="250" y="40" width="100" height="60" fill="#f2b134" transform="rotate(12 300 70)"/></svg>`;

/** Its typeface is set by a module that the built shell does not hold. */
const LETTERING = makeShapeEntry({
  ...{ id: "e1", kind: "lettering", text: "Regatta", spotId: "f2b134", capPx: 160 },
  typeface: { id: "dejavu-serif-700", name: "DejaVu Serif Bold" },
  baseline: { kind: "straight", at: { x: 1200, y: 1300 } },
});

afterAll(() => rmSync(folder, { recursive: true }));

it("gives the same files as the source, compiled anew and as it was kept", async () => {
  const art = join(folder, "sails.png");
  writeFileSync(art, await sharp(Buffer.from(ART)).png().toBuffer());
  const recipe = join(folder, "recipe.json");
  writeFileSync(recipe, JSON.stringify(makeRecipe({ shapes: { entries: [LETTERING] } })));
  const files = async (way: readonly string[], name: string) => {
    const out = join(folder, name);
    await run(process.execPath, [...way, art, "--out", out, "--garment", "#1d2a44", "--recipe", recipe], { cwd: ROOT });
    return readdirSync(join(out, "sails")).map((file) => [file, contentOf(join(out, "sails", file))]);
  };
  const fromSource = await files(["--import", "tsx", "cli/src/main.ts"], "source");
  expect(fromSource.map(([file]) => file)).toContain("films.pdf");
  expect(await files(["tools/separate.mjs"], "built")).toEqual(fromSource);
  expect(readdirSync(join(ROOT, "cli", "dist")).filter((name) => name.endsWith(".compiled"))).toHaveLength(1);
  expect(await files(["tools/separate.mjs"], "kept")).toEqual(fromSource);
}, 120_000);

/** What must be the same: PDFs hold the minute in which they were made, the report how long that took. */
function contentOf(path: string): unknown {
  if (path.endsWith(".pdf")) return readFileSync(path).length > 0;
  const text = readFileSync(path, "utf8");
  if (path.endsWith("report.json")) return { ...JSON.parse(text), timingsMs: null };
  return createHash("sha256").update(text).digest("hex");
}
