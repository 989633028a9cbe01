import { existsSync, readdirSync } from "node:fs";
import { defineConfig } from "vite";

// Core as the product runs it, for the bench alone: what reads TypeScript as it stands wraps every function, which costs the
// hot loops half as much again.
const source = new URL("src/", import.meta.url);
const folders = readdirSync(source).filter((folder) => existsSync(new URL(`${folder}/index.ts`, source)));
export default defineConfig({
  build: {
    ssr: true,
    target: "node20",
    rolldownOptions: {
      input: Object.fromEntries(folders.map((folder) => [folder, `src/${folder}/index.ts`])),
      output: { entryFileNames: "[name].js", chunkFileNames: "parts/[name].js" },
    },
  },
});
