// What every process gives out: files, each with a way to make it.

/** A file that is given out. `make` tells how much of it is done (0..1), and what a person reads meanwhile. */
export interface Output {
  readonly name: string;
  readonly mediaType: string;
  make(tell: (done: number, doing: string) => void): Promise<Uint8Array>;
}

/** What outputs say of the job; `date` is given, since core has no clock. `labelFont` is a TrueType font. */
export interface OutputFacts {
  readonly job: string;
  readonly client: string;
  readonly date: Date;
  readonly labelFont: Uint8Array;
}
