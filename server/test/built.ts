import { buildServer } from "../../tools/build.ts";

/** The tests talk to the server as it is run: built once before them. */
export async function setup(): Promise<void> {
  await buildServer();
}
