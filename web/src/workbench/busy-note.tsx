// What is being computed, over the table: what for, how far it is, and a way to stop it once it takes long.
import { useEffect, useState } from "react";
import { useCompute } from "../compute/use-compute.ts";
import { Button } from "../parts/button.tsx";
import { goOnAt, labelled } from "../parts/go-on-at.ts";

/** What takes longer is a wait, ms. */
const LONG_MS = 1000;
const GO_ON = "Go on computing";

export function BusyNote() {
  const { computed, stop, goOn } = useCompute();
  const { busy, done, failure, isStopped } = computed;
  const isLong = useIsLong(busy !== null);
  if (failure)
    return (
      <p role="alert" className="absolute inset-x-0 top-0 border-l-4 border-wrong bg-card px-4 py-2">
        This could not be computed: {failure} The recipe is kept.
      </p>
    );
  if (isStopped)
    return (
      <div className="absolute inset-x-0 top-0 flex items-center gap-3 border-l-4 border-next bg-card px-4 py-2">
        <p role="status" className="flex-1">
          Stopped. The table shows what was computed so far; all that you decided is kept.
        </p>
        <Button aria-label={GO_ON} onClick={goOn}>
          Go on
        </Button>
      </div>
    );
  if (busy === null) return null;
  return (
    <div className="busy-note absolute left-3 top-3 flex items-center gap-3 border border-rule bg-sheet/95 px-2.5 py-1 text-xs">
      <p role="status" data-testid="busy">
        {busy} ...
      </p>
      {isLong && (
        <>
          <progress className="h-2 w-24 accent-ink" value={done} max={1} aria-label="How far it is" />
          <Button
            className="px-2 py-0 text-xs leading-6"
            onClick={() => {
              stop();
              goOnAt(() => labelled(GO_ON));
            }}
          >
            Stop
          </Button>
        </>
      )}
    </div>
  );
}

/** Whether it has been so for long. */
function useIsLong(isSo: boolean): boolean {
  const [isLong, setLong] = useState(false);
  useEffect(() => {
    if (!isSo) return;
    const timer = setTimeout(() => setLong(true), LONG_MS);
    return () => {
      clearTimeout(timer);
      setLong(false);
    };
  }, [isSo]);
  return isLong;
}
