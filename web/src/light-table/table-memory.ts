// What a light table keeps for when it is put up again: where it was moved to, and what is painted of what lies on it.
import { TilePainter, type View } from "./tiles.ts";

export class TableMemory {
  /** By the name of what lies on the table; none: all of it is shown. */
  readonly views = new Map<string, View>();
  private readonly painters = new Map<string, TilePainter>();

  painterOf(name: string): TilePainter {
    const painter = this.painters.get(name) ?? new TilePainter();
    this.painters.set(name, painter);
    return painter;
  }
}
