// What Node has not of the canvas, as far as the tests look at it: paths that remember what they are made of, canvases that
// remember how many pictures were taken of them.

export class FakePath {
  readonly parts: FakePath[] = [];
  readonly points: [number, number][] = [];
  addPath(path: FakePath) {
    this.parts.push(path);
  }
  moveTo(x: number, y: number) {
    this.points.push([x, y]);
  }
  lineTo(x: number, y: number) {
    this.points.push([x, y]);
  }
  bezierCurveTo(_x1: number, _y1: number, _x2: number, _y2: number, x: number, y: number) {
    this.points.push([x, y]);
  }
  rect() {}
  arc() {}
  closePath() {}
}

export class FakeCanvas {
  static pictures = 0;
  getContext() {
    return null;
  }
  transferToImageBitmap() {
    FakeCanvas.pictures++;
    return {};
  }
}

/** Puts both where the browser has its own. */
export function stubCanvas(): void {
  Object.assign(globalThis, { Path2D: FakePath, OffscreenCanvas: FakeCanvas });
}
