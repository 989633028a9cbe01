import { QueryClient, QueryObserver } from "@tanstack/react-query";
import { expect, it } from "vitest";
import { readAnew } from "./read-anew.ts";

const moment = () => new Promise((resolve) => setTimeout(resolve, 5));

it("a change that overtakes the first reading of a list is in the list afterwards", async () => {
  const queries = new QueryClient({ defaultOptions: { queries: { staleTime: 60_000 } } });
  const server = ["ferry"];
  const held: (() => void)[] = [];
  // What the server has when it is asked, on its way until it is let go.
  const read = () => {
    const answer = [...server];
    return new Promise<string[]>((resolve) => held.push(() => resolve(answer)));
  };
  const shown = new QueryObserver(queries, { queryKey: ["jobs", "board", "fer"], queryFn: read });
  const stop = shown.subscribe(() => {});
  server.push("ferry (copy)");
  const done = readAnew(queries, ["jobs"]);
  while (shown.getCurrentResult().isFetching) {
    held.shift()?.();
    await moment();
  }
  await done;
  expect(shown.getCurrentResult().data).toEqual(["ferry", "ferry (copy)"]);
  stop();
});
