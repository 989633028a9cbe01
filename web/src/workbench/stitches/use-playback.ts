// The film of a plan, and what React knows of it.
import type { StitchPlan } from "@plain-palette/core/stitch";
import { useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { Film, type FilmState, SPEEDS } from "./film.ts";

export interface Playback extends FilmState {
  readonly film: Film | null;
}

const NEVER = () => () => {};

export function usePlayback(plan: StitchPlan | null, mmPerPx: number): Playback {
  const speed = useRef<number>(SPEEDS[1].value);
  // Another plan is another film: it begins anew, at the speed of the last.
  const film = useMemo(() => plan && new Film(plan, mmPerPx, speed.current), [plan, mmPerPx]);
  useEffect(() => () => film?.goTo(null), [film]);
  const idle = useMemo<FilmState>(() => ({ at: null, isPlaying: false, speed: speed.current }), []);
  const state = useSyncExternalStore(film?.subscribe ?? NEVER, film?.read ?? (() => idle));
  speed.current = state.speed;
  return { film, ...state };
}
