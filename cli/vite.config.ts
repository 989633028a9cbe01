import { defineConfig } from "vite";

// One file for the shell and one for the threads that help it, with what they share beside them: it is at work in half the
// time that reading the source as it stands takes. Packages of others are in it, too, but for those with a library of their own.
export default defineConfig({
  ssr: { noExternal: true, external: ["sharp", "@resvg/resvg-js"] },
  build: {
    ssr: true,
    target: "node20",
    // Less to read at every start.
    minify: true,
    // Another shell may be reading what is there.
    emptyOutDir: false,
    rolldownOptions: {
      input: { main: "src/main.ts", helper: "src/helper.ts" },
      output: { entryFileNames: "[name].js", chunkFileNames: "parts/[name].js" },
    },
  },
});
