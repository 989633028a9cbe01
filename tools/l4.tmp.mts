import sharp from "sharp";
import { DEMO_JOBS } from "./demo/jobs.ts";
import { makePrepareCache, prepareArtwork, actionSchema } from "@plain-palette/core/recipe";
import { proposeBackground, findSpecks } from "@plain-palette/core/raster";
import { decodeArtwork } from "@plain-palette/server/intake";
const demo = DEMO_JOBS.find((j) => j.client.includes("Kite"))!;
const { raster } = await decodeArtwork(await demo.draw());
const a = (o: object) => actionSchema.parse(o);
const geo = [a({ id: "a", kind: "straighten", angleDeg: -3.39 }), a({ id: "b", kind: "crop", x: 140, y: 100, width: 1111, height: 1434 })];
const cache = makePrepareCache();
const before = prepareArtwork(raster, geo, cache);
const prop = proposeBackground(before.raster)!;
console.log(prop.tolerance, prop.islands, prop.share);
for (const tol of [prop.tolerance, 40]) {
const { raster: r } = prepareArtwork(raster, [...geo, a({ id: "c", kind: "pick", seeds: [{ x: 300, y: 100 }], hex: "#ebe8de", tolerance: tol, reach: "everywhere" })], cache);
const s = findSpecks(r, { maxPx: 12, dark: true, light: true, holes: false }); console.log("specks", tol, s.count, findSpecks(r, { maxPx: 12, dark: true, light: false, holes: false }).count);
await sharp(r.data, { raw: { width: r.width, height: r.height, channels: 4 } }).flatten({ background: "#206020" }).extract({ left: 60, top: 1180, width: 160, height: 110 }).resize(960, 660, { kernel: "nearest" }).png().toFile(`/tmp/shots/z${tol}.png`);
}
