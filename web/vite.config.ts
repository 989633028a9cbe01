import { readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** Writes down of what parts the application is, so that all of them can be fetched ahead. */
function listParts(): Plugin {
  return {
    name: "list-parts",
    writeBundle({ dir = "" }) {
      const parts = readdirSync(join(dir, "assets")).map((name) => `/assets/${name}`);
      writeFileSync(join(dir, "parts.json"), JSON.stringify(parts));
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), listParts()],
  worker: { format: "es" },
  // The largest part is the PDF library with its font reader: loaded when files are made.
  build: {
    target: "es2022",
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1200,
    // The shop's application, and the page that clients' links open.
    rolldownOptions: { input: { index: "index.html", client: "client.html" } },
  },
});
