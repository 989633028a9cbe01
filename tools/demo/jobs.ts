// The demo jobs of Quayside Print Room: who ordered what, and the picture that came with it.
import { drawBakery } from "./bakery.ts";
import { drawFerry } from "./ferry.ts";
import { drawKites } from "./kites.ts";
import { drawPilots } from "./pilots.ts";
import { drawRowing } from "./rowing.ts";

export interface DemoJob {
  readonly fileName: string;
  readonly title: string;
  readonly client: string;
  readonly garment: string;
  readonly width: { readonly value: number; readonly unit: "in" | "mm" };
  /** How it is made, where that is not on screens, and what was decided on it. */
  readonly made?: { readonly process: string; readonly settings: Readonly<Record<string, unknown>> };
  draw(): Promise<Buffer>;
}

export const DEMO_JOBS: readonly DemoJob[] = [
  {
    fileName: "pilots-badge.png",
    title: "Fleeces, left chest",
    client: "Lantern Quay Pilots",
    garment: "#26323d",
    width: { value: 90, unit: "mm" },
    made: { process: "stitches", settings: { fabric: "fleece" } },
    draw: drawPilots,
  },
  {
    fileName: "rowing-crest.png",
    title: "Club kit, full back",
    client: "Saltmarsh Rowing Club",
    garment: "#e8e6e1",
    width: { value: 280, unit: "mm" },
    draw: drawRowing,
  },
  {
    fileName: "logo_web_small.jpg",
    title: "Aprons, front",
    client: "Hearth & Rye",
    garment: "#f4efe3",
    width: { value: 6, unit: "in" },
    draw: drawBakery,
  },
  {
    fileName: "scan0007.jpg",
    title: "Festival shirts",
    client: "Kite Sunday committee",
    garment: "#ffffff",
    width: { value: 9, unit: "in" },
    draw: drawKites,
  },
  {
    fileName: "crew shirt FINAL.png",
    title: "Crew shirts, full front",
    client: "Tern Island Ferry",
    garment: "#1d2a44",
    width: { value: 10.5, unit: "in" },
    draw: drawFerry,
  },
];
