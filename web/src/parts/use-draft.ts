// What is being typed into a field, until it is taken over.
import { useEffect, useRef, useState } from "react";

interface Draft {
  readonly typed: string;
  /** The text in force when it was typed or taken. */
  readonly over: string;
  /** What is wrong with it; such a draft gives way when the text in force changes. */
  readonly fault?: string;
  /** Taken over: shown only until the text in force changes. */
  readonly isTaken?: true;
}

/** Of a page: the first comes while there is time, the second always, where the page is not killed before it. */
const ENDS = ["beforeunload", "pagehide"] as const;

/**
 * `take` hands what was typed to `commit`, which throws with what is wrong; `drop` goes back to the text in force.
 * While nothing is typed there is no draft at all, so none can be behind the text in force and be taken for typed.
 */
export function useDraft(text: string, commit: (typed: string) => void, { holdsTaken = false } = {}) {
  const [kept, setKept] = useState<Draft | null>(null);
  const isOver = kept !== null && (kept.fault !== undefined || kept.isTaken === true) && kept.over !== text;
  // For good: it does not come back when the text in force does.
  if (isOver) setKept(null);
  const draft = isOver ? null : kept;
  const take = () => {
    if (!draft || draft.isTaken) return;
    const { typed } = draft;
    if (typed === text) return setKept(null);
    try {
      commit(typed);
      setKept(holdsTaken ? { typed, over: text, isTaken: true } : null);
    } catch (error) {
      setKept({ typed, over: text, fault: error instanceof Error ? error.message : String(error) });
    }
  };
  // What was typed counts, too, when the page or the panel is left with the cursor still in the field.
  const newest = useRef(take);
  newest.current = take;
  useEffect(() => {
    const leave = () => newest.current();
    for (const end of ENDS) window.addEventListener(end, leave);
    return () => {
      for (const end of ENDS) window.removeEventListener(end, leave);
      leave();
    };
  }, []);
  return {
    shown: draft?.typed ?? text,
    fault: draft?.fault,
    isTyped: draft !== null && !draft.isTaken,
    type: (typed: string) => setKept({ typed, over: text }),
    take,
    drop: () => setKept(null),
  };
}
