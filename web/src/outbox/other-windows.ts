// Windows of one browser tell each other what has changed on the server, so that each shows it at once.

/** A list of the shop's, or a job as it was saved at that time. */
export type Changed = { readonly list: string } | { readonly job: string; readonly updatedAt: string };

const channel = new BroadcastChannel("plain-palette changes");

/** Every other window hears it, this one does not. */
export function tellWindows(changed: Changed): void {
  channel.postMessage(changed);
}

/** Returns what ends it. */
export function hearWindows(heard: (changed: Changed) => void): () => void {
  const onMessage = ({ data: changed }: MessageEvent<Changed>) => heard(changed);
  channel.addEventListener("message", onMessage);
  return () => channel.removeEventListener("message", onMessage);
}
