import { defineConfig, type Plugin } from "vite";

/** What stays a module of its own is brought in by whoever runs the file: a kept script has no imports. */
const bringIn: Plugin = {
  name: "bring-in",
  renderChunk: (code) => code.replaceAll(/(?<![.\w$])import\(/g, "bringIn("),
};

// All of the shell as one file that the engine can keep compiled (`tools/separate.mjs`). Packages of others are in it, too,
// but for those with a library of their own, and one that is a module that waits.
export default defineConfig({
  plugins: [bringIn],
  ssr: { noExternal: true, external: ["sharp", "@resvg/resvg-js", "harfbuzzjs"] },
  build: {
    ssr: true,
    target: "node20",
    // Less to read at every start.
    minify: true,
    // Another shell may be reading what is there.
    emptyOutDir: false,
    rolldownOptions: {
      input: { main: "src/main.ts" },
      output: { format: "cjs", codeSplitting: false, entryFileNames: "[name].cjs" },
    },
  },
});
