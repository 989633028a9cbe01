// npm run kernel: makes core's compiled loops (core/kernel, AssemblyScript) again. What comes out is kept with the source: whoever
// builds needs no compiler, and a test tells when the two differ.
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import asc from "assemblyscript/asc";
import { ROOT } from "./server-process.ts";

/** The loops as they are compiled now, as the text of core/src/kernel/code.ts; throws an Error with what the compiler says. */
export async function kernelCode(): Promise<string> {
  let wasm: Uint8Array | string = "";
  const config = join(ROOT, "core", "kernel", "asconfig.json");
  const { error, stderr } = await asc.main(["--config", config, "--outFile", "kernel.wasm"], {
    writeFile: (_, contents) => {
      wasm = contents;
    },
  });
  if (error) throw new Error(`${error.message}\n${stderr}`);
  const text = Buffer.from(wasm).toString("base64");
  return `// Made of core/kernel by \`npm run kernel\`; not changed by hand.\nexport const CODE =\n  "${text}";\n`;
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  writeFileSync(join(ROOT, "core", "src", "kernel", "code.ts"), await kernelCode());
