// Ticket and settings beside the table fold away, so that the table has the room: by themselves where there is little, and
// as a person wishes, who is remembered.
import {
  createContext,
  type ReactNode,
  type RefObject,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from "react";
import { Button } from "../parts/button.tsx";

export type Foldable = "ticket" | "settings";

export interface Folds {
  readonly isOpen: Readonly<Record<Foldable, boolean>>;
  fold(what: Foldable, isOpen: boolean): void;
  /** What a person has just folded or opened: the other button for it takes the focus. */
  readonly justDone: RefObject<Foldable | null>;
}

/** Narrower than this, a ticket beside the table would leave it too little. */
const roomForTicket = () => window.matchMedia("(min-width: 80rem)");
const KEPT = "plain-palette folded";

function watchRoom(heard: () => void): () => void {
  const room = roomForTicket();
  room.addEventListener("change", heard);
  return () => room.removeEventListener("change", heard);
}

export const useRoomForTicket = () => useSyncExternalStore(watchRoom, () => roomForTicket().matches);

export function useFolds(): Folds {
  const hasRoom = useRoomForTicket();
  const [folded, setFolded] = useState<readonly string[]>(() => (localStorage.getItem(KEPT) ?? "").split(" "));
  const justDone = useRef<Foldable | null>(null);
  return useMemo(
    () => ({
      isOpen: { ticket: hasRoom && !folded.includes("ticket"), settings: !folded.includes("settings") },
      fold(what, isOpen) {
        const next = folded.filter((one) => one !== what).concat(isOpen ? [] : [what]);
        justDone.current = what;
        setFolded(next);
        localStorage.setItem(KEPT, next.join(" "));
      },
      justDone,
    }),
    [hasRoom, folded],
  );
}

export const FoldsContext = createContext<Folds | null>(null);

export function useFoldsHere(): Folds {
  const folds = useContext(FoldsContext);
  if (!folds) throw new Error("folds outside the workbench");
  return folds;
}

/** Folds away, or opens; there is one of each, and whichever comes has the focus. */
export function FoldButton({ what, opens, children }: { what: Foldable; opens: boolean; children: ReactNode }) {
  const { isOpen, fold, justDone } = useFoldsHere();
  const button = useRef<HTMLButtonElement>(null);
  const isHere = isOpen[what] !== opens;
  useEffect(() => {
    if (!isHere || justDone.current !== what) return;
    justDone.current = null;
    button.current?.focus();
  }, [isHere, justDone, what]);
  return (
    <Button
      ref={button}
      look="quiet"
      className="px-1.5"
      aria-expanded={!opens}
      aria-label={opens ? `Open the ${what}` : `Fold the ${what} away`}
      onClick={() => fold(what, opens)}
    >
      {children}
    </Button>
  );
}
