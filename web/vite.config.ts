import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
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
