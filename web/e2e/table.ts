// Working on the light table as a person does, in places of the art.
import { expect, type Locator, type Page } from "@playwright/test";
import sharp from "sharp";

/** The table with an art of this size shown whole, as it is until a person moves it. */
export class Table {
  readonly frame: Locator;

  constructor(
    readonly page: Page,
    readonly width: number,
    readonly height: number,
  ) {
    this.frame = page.getByLabel(/^Light table/);
  }

  /** Where on the screen a place of the art lies. */
  async at(x: number, y: number): Promise<{ x: number; y: number }> {
    const box = await this.frame.boundingBox();
    if (!box) throw new Error("no table");
    const zoom = Math.min((box.width - 56) / this.width, (box.height - 56) / this.height);
    return {
      x: box.x + (box.width - this.width * zoom) / 2 + x * zoom,
      y: box.y + (box.height - this.height * zoom) / 2 + y * zoom,
    };
  }

  async click(x: number, y: number): Promise<void> {
    const place = await this.at(x, y);
    await this.page.mouse.click(place.x, place.y);
  }

  /** Drags through places of the art. */
  async drag(...places: readonly (readonly [number, number])[]): Promise<void> {
    const [first, ...rest] = await Promise.all(places.map(([x, y]) => this.at(x, y)));
    if (!first) throw new RangeError("a drag needs places");
    await this.page.mouse.move(first.x, first.y);
    await this.page.mouse.down();
    for (const { x, y } of rest) await this.page.mouse.move(x, y, { steps: 6 });
    await this.page.mouse.up();
  }

  /** The colour shown at a place of the art: the middle of a few pixels, for cloth has fine lines. */
  async colourAt(x: number, y: number): Promise<[number, number, number]> {
    const place = await this.at(x, y);
    const clip = { x: Math.round(place.x) - 4, y: Math.round(place.y) - 4, width: 9, height: 9 };
    const png = await this.page.screenshot({ clip });
    const { data, info } = await sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    const middle = (c: number) => {
      const values = Uint8Array.from({ length: info.width * info.height }, (_, p) => data[p * 3 + c] ?? 0);
      return values.sort()[values.length >> 1] ?? 0;
    };
    return [middle(0), middle(1), middle(2)];
  }

  /** Waits until a place shows a colour. */
  async expectColour(x: number, y: number, colour: readonly [number, number, number]): Promise<void> {
    await expect
      .poll(async () => {
        const shown = await this.colourAt(x, y);
        return Math.max(...shown.map((v, c) => Math.abs(v - (colour[c] ?? 0)))) <= 12 ? "as expected" : shown.join();
      })
      .toBe("as expected");
  }
}
