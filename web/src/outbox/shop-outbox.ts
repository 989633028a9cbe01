// The outbox of this window: what it hears from the server goes into the lists that are shown.
import type { QueryClient } from "@tanstack/react-query";
import { onTryNow, tryNow } from "../api/again.ts";
import { readAnew } from "../api/read-anew.ts";
import { WINDOW } from "../api/requests.ts";
import { keepInBrowser, type Letter } from "./kept-letters.ts";
import { type Answer, type ContentOf, sendContent } from "./letters.ts";
import { hearWindows, tellWindows } from "./other-windows.ts";
import { makeOutbox } from "./outbox.ts";
import { withWaiting } from "./waiting.ts";

/** Whether the browser keeps letters. */
let isKept = true;

const kept = keepInBrowser(WINDOW, () => {
  isKept = false;
});
export const shopOutbox = makeOutbox({ kept, send: sendContent, window: WINDOW });

/** Lets the lists hear of answers, and the outbox of the page's end. */
export function startOutbox(queries: QueryClient): void {
  shopOutbox.hear((letter, answer) => takeOver(queries, letter, answer));
  window.addEventListener("pagehide", () => shopOutbox.leave());
  hearWindows((changed) => {
    const list = "list" in changed ? changed.list : LISTS.job;
    void readAnew(queries, [list]);
  });
  onTryNow(() => shopOutbox.tryNow());
  window.addEventListener("online", tryNow);
  window.addEventListener("beforeunload", (event) => {
    if (!isKept && shopOutbox.state.getState().letters.length > 0) event.preventDefault();
  });
}

/** Puts what the server has now where it is listed, before its letter is gone: nobody sees the old value in between. */
function takeOver(queries: QueryClient, { content }: Letter, answer: Answer): void {
  if (answer.of === "settings") queries.setQueryData(["settings"], answer.settings);
  else if (answer.of !== "job" && (content.kind === "stock" || content.kind === "placement")) {
    const done = { ...content, thing: answer.thing } as ContentOf<"stock"> | ContentOf<"placement">;
    queries.setQueryData([LISTS[answer.of]], (listed: (typeof done.thing)[] | undefined) =>
      withWaiting(listed, [done]),
    );
  }
  const list = LISTS[answer.of];
  void readAnew(queries, [list]);
  tellWindows({ list });
}

const LISTS: Readonly<Record<Answer["of"], string>> = {
  job: "jobs",
  settings: "settings",
  stock: "shelf",
  placement: "placements",
};
