// The shop's routes, as its sources name them: none is forgotten by whoever tries them all.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { ROOT } from "../server-process.ts";

/** All routes that the server's sources name. */
export function shopRoutes(): string[] {
  const folder = join(ROOT, "server", "src");
  const files = readdirSync(folder, { recursive: true, encoding: "utf8" }).filter((name) =>
    name.endsWith("-routes.ts"),
  );
  const found = files.flatMap((name) => [
    ...readFileSync(join(folder, name), "utf8").matchAll(/router\s*\.(?:get|post|put|patch|delete)\(\s*"([^"]+)"/g),
  ]);
  return [...new Set(found.map(([, path = ""]) => path))];
}
