// Keeps something running: whatever ends it, it is started again, after a pause that grows while it does not help.

export interface Running {
  readonly ended: Promise<void>;
  stop(): Promise<void>;
}

export interface KeptUp<T> {
  current(): T;
  stop(): Promise<void>;
}

/** First pause and longest, ms; and how long something has to run for the pause to be short again. */
const FIRST_MS = 500;
const LONGEST_MS = 2000;
const WELL_MS = 5000;

/** `start` may reject: the first time so does this; later it is tried again. */
export async function keepUp<T extends Running>(
  name: string,
  start: () => Promise<T>,
  say: (words: string) => void,
): Promise<KeptUp<T>> {
  let current = await start();
  let isStopping = false;
  let wake = () => {};
  const stopped = new Promise<void>((resolve) => {
    wake = resolve;
  });

  const watch = async () => {
    let pause = FIRST_MS;
    while (!isStopping) {
      const began = Date.now();
      await current.ended;
      if (Date.now() - began > WELL_MS) pause = FIRST_MS;
      for (let isUp = false; !isUp && !isStopping; ) {
        say(`${name} has ended by itself; it is started again in ${pause / 1000} s.`);
        await Promise.race([new Promise((resolve) => setTimeout(resolve, pause)), stopped]);
        pause = Math.min(LONGEST_MS, 2 * pause);
        if (isStopping) return;
        try {
          current = await start();
          isUp = true;
          say(`${name} is up again.`);
        } catch (error) {
          say(`${name} does not start: ${error instanceof Error ? error.message : error}`);
        }
      }
    }
  };
  const watching = watch();
  return {
    current: () => current,
    async stop() {
      isStopping = true;
      wake();
      await current.stop();
      await watching;
    },
  };
}
