import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, constants, gzipSync } from "node:zlib";
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

/** The last step of compression takes ten times as long for a twentieth. */
const QUICKLY = { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } };

/** Lays beside each part what it is compressed: it is sent so, and nobody has to wait for that. */
function compressParts(): Plugin {
  return {
    name: "compress-parts",
    writeBundle({ dir = "" }) {
      const folder = join(dir, "assets");
      for (const name of readdirSync(folder).filter((one) => /\.(js|css|wasm)$/.test(one))) {
        const bytes = readFileSync(join(folder, name));
        writeFileSync(join(folder, `${name}.br`), brotliCompressSync(bytes, QUICKLY));
        writeFileSync(join(folder, `${name}.gz`), gzipSync(bytes));
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), tailwindcss(), listParts(), compressParts()],
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
