// Messages between the server and the processes that work for it: each a length and a structured clone (HTML, 2.7), so that
// pixels go over as they are.
import type { Readable, Writable } from "node:stream";
import { deserialize, serialize } from "node:v8";

const HEAD_BYTES = 4;
/** Largest message: 60 million pixels of noise, packed, and more. */
const MOST_BYTES = 2 ** 30;

/** Writes a message; resolves once it is on its way. */
export function writeFrame(stream: Writable, message: unknown): Promise<void> {
  const body = serialize(message);
  const head = Buffer.alloc(HEAD_BYTES);
  head.writeUInt32LE(body.length);
  stream.write(head);
  return new Promise((resolve, reject) => stream.write(body, (error) => (error ? reject(error) : resolve())));
}

/** Calls back with each message; with `onNonsense`, once, for what is none. */
export function readFrames(stream: Readable, onMessage: (message: unknown) => void, onNonsense: () => void): void {
  let pieces: Buffer[] = [];
  let size = 0;
  let wanted = HEAD_BYTES;
  let isHead = true;
  const giveUp = () => {
    stream.destroy();
    onNonsense();
  };
  stream.on("data", (piece: Buffer) => {
    pieces.push(piece);
    size += piece.length;
    while (size >= wanted) {
      const all = pieces.length === 1 && pieces[0] ? pieces[0] : Buffer.concat(pieces, size);
      const part = all.subarray(0, wanted);
      pieces = [all.subarray(wanted)];
      size -= wanted;
      if (isHead) {
        wanted = part.readUInt32LE();
        isHead = false;
        if (wanted > MOST_BYTES) return giveUp();
      } else {
        wanted = HEAD_BYTES;
        isHead = true;
        const message = read(part);
        if (message === null) return giveUp();
        onMessage(message.value);
      }
    }
  });
}

function read(part: Buffer): { value: unknown } | null {
  try {
    return { value: deserialize(part) };
  } catch {
    return null;
  }
}
