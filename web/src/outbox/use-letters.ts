// What waits in this window's outbox, for components.
import { useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import type { Letter } from "./kept-letters.ts";
import type { Content, ContentOf } from "./letters.ts";
import { shopOutbox } from "./shop-outbox.ts";

/** The contents of a kind that wait and that no person has to decide on: the same array until they change. */
export function useWaiting<Kind extends Content["kind"]>(kind: Kind): readonly ContentOf<Kind>[] {
  return useStore(
    shopOutbox.state,
    useShallow(({ letters }) =>
      letters.flatMap(({ content, held }) => (content.kind === kind && !held ? [content as ContentOf<Kind>] : [])),
    ),
  );
}

/** All letters. */
export function useLetters(): readonly Letter[] {
  return useStore(shopOutbox.state, ({ letters }) => letters);
}
