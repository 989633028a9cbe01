// Looking for a typeface from the page: begun, told of, stopped.
import { useCallback, useEffect, useRef, useState } from "react";
import type { FindProgress, FindRequest } from "./find-worker.ts";

export interface Find extends FindProgress {
  readonly total: number;
  readonly isRunning: boolean;
  start(request: FindRequest): void;
  stop(): void;
  /** Stops, and forgets what was found. */
  drop(): void;
}

const NOTHING = { done: 0, total: 0, best: [] } as const;

export function useFind(): Find {
  const [found, setFound] = useState<FindProgress & { readonly total: number }>(NOTHING);
  const [isRunning, setRunning] = useState(false);
  const worker = useRef<Worker | null>(null);
  const stop = useCallback(() => {
    worker.current?.terminate();
    worker.current = null;
    setRunning(false);
  }, []);
  useEffect(() => stop, [stop]);
  const start = useCallback(
    (request: FindRequest) => {
      stop();
      const total = request.typefaces.length;
      setFound({ ...NOTHING, total });
      setRunning(true);
      const started = new Worker(new URL("./find-worker.ts", import.meta.url), { type: "module" });
      started.onmessage = ({ data }: MessageEvent<FindProgress>) => {
        setFound({ ...data, total });
        if (data.done === total) stop();
      };
      started.onerror = stop;
      started.postMessage(request);
      worker.current = started;
    },
    [stop],
  );
  const drop = useCallback(() => {
    stop();
    setFound(NOTHING);
  }, [stop]);
  return { ...found, isRunning, start, stop, drop };
}
