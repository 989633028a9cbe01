export {
  bytesAt,
  compiledLoops,
  type DecideLoop,
  doublesAt,
  makeRoom,
  type Place,
  wordsAt,
} from "./loops.ts";
