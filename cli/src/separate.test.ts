import { execFile } from "node:child_process";
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { readPlates } from "./plates.test.support.ts";

const run = promisify(execFile);
const ROOT = new URL("../..", import.meta.url).pathname;
const folder = mkdtempSync(join(tmpdir(), "plain-palette-cli-"));
const out = join(folder, "out");

interface Failed {
  readonly code: number;
  readonly stderr: string;
}

async function separate(...args: string[]): Promise<{ code: number; stderr: string }> {
  try {
    const { stderr } = await run(process.execPath, ["--import", "tsx", "cli/src/main.ts", ...args, "--out", out], {
      cwd: ROOT,
    });
    return { code: 0, stderr };
  } catch (error) {
    const { code, stderr } = error as Failed;
    return { code, stderr };
  }
}

const ART = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 300" width="400" height="300"><rect width="400" height="300" fill="#ffffff"/><circle cx="150" cy="150" r="110" fill="#d8412f"/><path d="M60 60L340 120L200 280Z" fill="#14304f"/><rect x="250" y="40" width="100" height="60" fill="#f2b134" transform="rotate(12 300 70)"/></svg>`;

const NAME = "Łódź ferry № 4";
const made = (name: string, file: string) => join(out, name, file);

afterAll(() => rmSync(folder, { recursive: true }));

describe("separate, from the shell", () => {
  let report: {
    image: object;
    spots: { name: string; hex: string; coverage: number }[];
    plates: { name: string; kind: string; order: number; coverage: number }[];
    shapes: { shapes: number; nodes: number };
    timingsMs: Record<string, number>;
    warnings: string[];
  };

  let said = "";

  beforeAll(async () => {
    writeFileSync(join(folder, `${NAME}.png`), await sharp(Buffer.from(ART)).png().toBuffer());
    const done = await separate(join(folder, `${NAME}.png`), "--garment", "#1d2a44", "--width", "8in");
    expect(done.code).toBe(0);
    said = done.stderr;
    report = JSON.parse(readFileSync(made(NAME, "report.json"), "utf8"));
  });

  it("reports image, spots, plates, shapes and timings", () => {
    expect(report.image).toEqual({ width: 400, height: 300 });
    expect(report.spots.map((spot) => spot.hex).sort()).toEqual(["#14304f", "#d8412f", "#f2b134", "#ffffff"]);
    expect(report.plates.map((plate) => plate.order)).toEqual([1, 2, 3, 4, 5]);
    expect(report.plates[0].kind).toBe("base");
    expect(Object.keys(report.timingsMs)).toEqual(["decode", "reduce", "trace", "separate", "films"]);
    expect(report.shapes.nodes).toBeLessThan(60);
  });

  it("says each warning of the report on standard error, and nothing else", () => {
    const lines = said.trim().split("\n");
    expect(lines).toEqual(report.warnings.map((warning) => `${join(folder, `${NAME}.png`)}: warning: ${warning}`));
    expect(report.warnings.join()).toMatch(/50 dpi.*prints as a background/);
  });

  it("takes the background away as the page does, and the recipe that it gives out goes back in", async () => {
    const file = join(folder, `${NAME}.png`);
    expect((await separate(file, "--background", "away")).stderr).not.toContain("background");
    const away = JSON.parse(readFileSync(made(NAME, "report.json"), "utf8"));
    expect(away.spots.map((spot: { hex: string }) => spot.hex).sort()).toEqual(["#14304f", "#d8412f", "#f2b134"]);
    const recipe = join(folder, "recipe.json");
    writeFileSync(recipe, readFileSync(made(NAME, "recipe.json")));
    await separate(file, "--recipe", recipe, "--trap", "1mm");
    const again = JSON.parse(readFileSync(made(NAME, "report.json"), "utf8"));
    expect(again.spots).toEqual(away.spots);
    expect(JSON.parse(readFileSync(made(NAME, "recipe.json"), "utf8")).processes.screens.trapMm).toBe(1);
    await separate(file, "--garment", "#1d2a44", "--width", "8in");
  });

  it("writes shapes.svg in source pixels at physical size, one group for each spot", () => {
    const svg = readFileSync(made(NAME, "shapes.svg"), "utf8");
    expect(svg).toMatch(/<svg [^>]*width="203\.2mm" height="152\.4mm" viewBox="0 0 400 300"/);
    for (const spot of report.spots) expect(svg).toContain(`data-spot="${spot.name}"`);
    expect(svg.match(/<g [^>]*data-hex="#[0-9a-f]{6}" fill="#[0-9a-f]{6}"/g)).toHaveLength(4);
  });

  it("writes an SVG that librsvg, too, draws without a hairline", async () => {
    const png = join(folder, "shapes.png");
    await run("rsvg-convert", ["-w", "800", "-h", "600", "-o", png, made(NAME, "shapes.svg")]);
    const { data } = await sharp(png).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    let least = 255;
    for (let i = 3; i < data.length; i += 4) least = Math.min(least, data[i]);
    expect(least).toBeGreaterThan(235);
  });

  it("writes PDFs that qpdf finds sound, of true page size", async () => {
    for (const file of ["films.pdf", "separations.pdf"]) {
      const { stdout } = await run("qpdf", ["--check", made(NAME, file)]);
      expect(stdout).toContain("No syntax or stream encoding errors");
    }
    const size = async (file: string) => {
      const { stdout } = await run("pdfinfo", [made(NAME, file)]);
      const [, w, h] = /Page size:\s+([\d.]+) x ([\d.]+) pts/.exec(stdout) ?? [];
      return { pages: Number(/Pages:\s+(\d+)/.exec(stdout)?.[1]), mm: [w, h].map((pt) => (Number(pt) * 25.4) / 72) };
    };
    const separations = await size("separations.pdf");
    expect(separations.pages).toBe(1);
    expect(separations.mm[0]).toBeCloseTo(203.2, 2);
    expect(separations.mm[1]).toBeCloseTo(152.4, 2);
    const films = await size("films.pdf");
    expect(films.pages).toBe(report.plates.length);
    expect(films.mm[0]).toBeGreaterThan(203.2 + 2 * 10);
  });

  it("ghostscript's tiffsep finds exactly the plates, each with the coverage that the report states", async () => {
    const { spots, process } = await readPlates(made(NAME, "separations.pdf"), 200, folder);
    expect([...spots.keys()].sort()).toEqual(report.plates.map((plate) => plate.name).sort());
    for (const plate of report.plates) {
      const data = spots.get(plate.name)?.data ?? Buffer.alloc(1);
      const ink = data.reduce((sum, value) => sum + (255 - value) / 255, 0) / data.length;
      expect(Math.abs(ink - plate.coverage)).toBeLessThan(0.01);
    }
    expect(process).toHaveLength(4);
    for (const [, { data }] of process) expect(data.every((value) => value === 255)).toBe(true);
  });

  it("puts the registration targets on the same pixel of every film, in solid black", async () => {
    const pages = mkdtempSync(join(folder, "films-"));
    await run("gs", [
      "-q",
      "-dNOPAUSE",
      "-dBATCH",
      "-dSAFER",
      "-sDEVICE=pnggray",
      "-r300",
      `-sOutputFile=${join(pages, "%d.png")}`,
      made(NAME, "films.pdf"),
    ]);
    const mm = (v: number) => Math.round((v / 25.4) * 300);
    const rims: Buffer[] = [];
    for (let page = 1; page <= report.plates.length; page++) {
      const image = sharp(join(pages, `${page}.png`));
      const { width = 0 } = await image.metadata();
      // The rim above the art: the top target with its centre mark.
      const rim = await image
        .clone()
        .extract({ left: 0, top: 0, width, height: mm(16) })
        .raw()
        .toBuffer();
      expect(rim.reduce((least, value) => Math.min(least, value), 255)).toBe(0);
      rims.push(rim);
      const art = await image
        .clone()
        .extract({ left: mm(18), top: mm(18), width: mm(200), height: mm(150) })
        .raw()
        .toBuffer();
      const grey = art.filter((value) => value !== 0 && value !== 255).length;
      expect(grey).toBe(0);
    }
    for (const rim of rims) expect(rim.equals(rims[0])).toBe(true);
  });

  it("labels every film so that no plate is mixed up", async () => {
    const { stdout } = await run("pdftotext", ["-layout", made(NAME, "films.pdf"), "-"]);
    const films = stdout.split("\f").filter((text) => text.trim() !== "");
    report.plates.forEach((plate, i) => {
      expect(films[i]).toContain(NAME);
      expect(films[i]).toContain(`Plate ${plate.order} of ${report.plates.length}: ${plate.name}`);
      expect(films[i]).toContain("203.2 x 152.4 mm");
    });
  });

  it("uses the number of colours, the trap and the garment that it is told", async () => {
    const file = join(folder, `${NAME}.png`);
    await separate(file, "--colours", "2", "--trap", "0", "--garment", "#e8e6e1");
    const two = JSON.parse(readFileSync(made(NAME, "report.json"), "utf8"));
    expect(two.spots).toHaveLength(2);
    expect(two.plates.reduce((sum: number, plate: { coverage: number }) => sum + plate.coverage, 0)).toBeCloseTo(1, 3);
  });
});

describe("separate, as transfer film", () => {
  const FILM = "film";
  let stderr = "";
  let report: {
    layers: {
      spotId: string;
      name: string;
      order: number;
      mode: string;
      areaMm2: number;
      nodes: number;
      cutLengthMm: number;
    }[];
    plates?: unknown;
  };

  beforeAll(async () => {
    const art = join(folder, `${FILM}.svg`);
    writeFileSync(art, ART);
    const asked = ["--process", "transfer", "--background", "away", "--width", "8in", "--lap", "0.8mm"];
    const done = await separate(art, ...asked, "--solid", "d8412f", "--cut", "svg,dxf,hpgl", "--no-mirror");
    expect(done.code).toBe(0);
    stderr = done.stderr;
    report = JSON.parse(readFileSync(made(FILM, "report.json"), "utf8"));
  });

  it("writes a cut file of each layer and format, named by press order and spot, and the press sheet", () => {
    const names = readdirSync(join(out, FILM));
    for (const { order, spotId } of report.layers)
      for (const ending of ["svg", "dxf", "plt"]) expect(names).toContain(`layer-${order}-${spotId}.${ending}`);
    expect(names).toEqual(expect.arrayContaining(["layers.svg", "press-sheet.pdf", "recipe.json", "shapes.svg"]));
    expect(names).not.toContain("films.pdf");
    expect(report.plates).toBeUndefined();
  });

  it("reports each layer as it was asked for", () => {
    expect(report.layers.map(({ order }) => order)).toEqual([1, 2, 3]);
    expect(report.layers.find(({ spotId }) => spotId === "d8412f")).toMatchObject({ mode: "solid" });
    for (const { areaMm2, nodes, cutLengthMm } of report.layers) {
      expect(areaMm2).toBeGreaterThan(100);
      expect(nodes).toBeGreaterThan(2);
      expect(cutLengthMm).toBeGreaterThan(2 * Math.sqrt(Math.PI * areaMm2) - 1);
    }
    expect(stderr).not.toContain("lines under 0.35 mm");
  });

  it("lays all layers in press order in layers.svg, right-reading, drawn by librsvg as shapes.svg is", async () => {
    const layers = readFileSync(made(FILM, "layers.svg"), "utf8");
    const ids = [...layers.matchAll(/<g [^>]*data-id="([^"]*)"/g)].map(([, id]) => id);
    expect(ids).toEqual(report.layers.map(({ spotId }) => spotId));
    expect(layers).toMatch(/width="203\.2mm" height="152\.4mm"/);
    const draw = async (file: string) => {
      const { stdout } = await run("rsvg-convert", ["-w", "400", "-b", "white", made(FILM, file)], {
        encoding: "buffer",
        maxBuffer: 1 << 26,
      });
      return sharp(stdout).removeAlpha().raw().toBuffer();
    };
    const [worn, shapes] = [await draw("layers.svg"), await draw("shapes.svg")];
    let differing = 0;
    for (let i = 0; i < worn.length; i++) if (Math.abs((worn[i] ?? 0) - (shapes[i] ?? 0)) > 60) differing++;
    expect(differing / worn.length).toBeLessThan(0.004);
  });

  it("refuses what it cannot be told", async () => {
    const bad = async (...args: string[]) => (await separate("--process", "transfer", ...args, "a.png")).stderr;
    expect(await bad("--lap", "9mm")).toMatch(/--lap takes 0 to 5 mm/);
    expect(await bad("--cut", "gcode")).toContain('--cut takes svg, dxf, hpgl, not "gcode"');
  });
});

describe("separate, as stitches", () => {
  const SEWN = "sewn";
  let report: {
    stitches: {
      count: number;
      trims: number;
      jumps: number;
      changes: number;
      minutes: number;
      hoop: { widthMm: number; heightMm: number };
      colours: { spotId: string; thread: string | null; stitches: number; threadM: number }[];
    };
    layers?: unknown;
  };

  beforeAll(async () => {
    const art = join(folder, `${SEWN}.svg`);
    writeFileSync(art, ART);
    const asked = ["--process", "stitches", "--background", "away", "--width", "90mm"];
    const done = await separate(art, ...asked, "--fabric", "knit", "--hoop", "130x180");
    expect(done.code).toBe(0);
    report = JSON.parse(readFileSync(made(SEWN, "report.json"), "utf8"));
  });

  it("writes the list, the thread and the worksheet, and nothing of another process", () => {
    const names = readdirSync(join(out, SEWN));
    expect(names).toEqual(
      expect.arrayContaining([
        "recipe.json",
        "report.json",
        "shapes.svg",
        "stitches.csv",
        "stitches.svg",
        "worksheet.pdf",
      ]),
    );
    expect(names.filter((name) => /layer|film|separation/.test(name))).toEqual([]);
    expect(report.layers).toBeUndefined();
  });

  it("reports what the list holds, row by row", () => {
    const list = readFileSync(made(SEWN, "stitches.csv"), "utf8");
    expect(list).toContain("# hoop: 130 x 180 mm");
    expect(list).toContain("# size: 90.00 x 67.50 mm");
    const rows = list
      .split("\n")
      .filter((line) => /^\d/.test(line))
      .map((line) => line.split(","));
    const of = (command: string) => rows.filter(([, own]) => own === command).length;
    const { stitches } = report;
    expect(stitches).toMatchObject({
      ...{ count: of("stitch"), trims: of("trim"), jumps: of("jump"), changes: of("colour") },
      hoop: { widthMm: 130, heightMm: 180 },
    });
    expect(stitches.colours.reduce((sum, colour) => sum + colour.stitches, 0)).toBe(stitches.count);
    expect(stitches.colours).toHaveLength(3);
    for (const { threadM, stitches: own } of stitches.colours) expect(threadM).toBeGreaterThan(own * 0.0015);
  });

  it("draws thread where shapes are (librsvg)", async () => {
    const draw = async (file: string) => {
      const { stdout } = await run("rsvg-convert", ["-w", "450", "-b", "white", made(SEWN, file)], {
        encoding: "buffer",
        maxBuffer: 1 << 26,
      });
      return sharp(stdout).removeAlpha().raw().toBuffer();
    };
    const [thread, shapes] = [await draw("stitches.svg"), await draw("shapes.svg")];
    let differing = 0;
    for (let i = 0; i < thread.length; i++) if (Math.abs((thread[i] ?? 0) - (shapes[i] ?? 0)) > 90) differing++;
    // Along edges thread stands over by the pull, 0.4 mm on knit.
    expect(differing / thread.length).toBeLessThan(0.06);
  });

  it("refuses cloths and hoops that it does not know", async () => {
    const bad = async (...args: string[]) => (await separate("--process", "stitches", ...args, "a.png")).stderr;
    expect(await bad("--fabric", "silk")).toContain('--fabric takes woven, knit, fleece, towel, cap, not "silk"');
    expect(await bad("--hoop", "large")).toContain("--hoop takes width x height in millimetres");
  });
});

describe("bad files", () => {
  it("each get one line with name and cause; the good ones are still done; exit code 2", async () => {
    const bad: Record<string, [Buffer, RegExp]> = {
      "empty.png": [Buffer.alloc(0), /empty/],
      "text.png": [Buffer.from("Dear print room, the logo is attached."), /text, not a picture/],
      "cut.png": [
        (await sharp(Buffer.from(ART)).png().toBuffer()).subarray(0, 900),
        /PNG is damaged or ends too early/,
      ],
      "cut.jpg": [
        (await sharp(Buffer.from(ART)).jpeg().toBuffer()).subarray(0, 2500),
        /JPEG is damaged or ends too early/,
      ],
      "bomb.png": [hugePng(), /100000 x 100000 pixels.*60 million/],
      "script.svg": [Buffer.from(ART.replace("<rect", "<script>alert(1)</script><rect")), /contains a script/],
      "outside.svg": [
        Buffer.from(ART.replace("<rect", '<image href="https://elsewhere.example/a.png"/><rect')),
        /outside itself/,
      ],
      "local.svg": [Buffer.from(ART.replace("<rect", '<image href="/etc/hostname"/><rect')), /outside itself/],
    };
    for (const [name, [bytes]] of Object.entries(bad)) writeFileSync(join(folder, name), bytes);
    writeFileSync(join(folder, "good.svg"), ART);
    const files = [...Object.keys(bad), "missing.png", "good.svg"].map((name) => join(folder, name));
    const { code, stderr } = await separate(...files);
    expect(code).toBe(2);
    const lines = stderr
      .trim()
      .split("\n")
      .filter((line) => !line.includes(": warning: "));
    expect(lines).toHaveLength(Object.keys(bad).length + 1);
    Object.entries(bad).forEach(([name, [, cause]], i) => {
      expect(lines[i]).toContain(name);
      expect(lines[i]).toMatch(cause);
    });
    expect(lines.at(-1)).toContain("there is no such file");
    expect(readdirSync(join(out, "good")).sort()).toEqual([
      "films.pdf",
      "recipe.json",
      "report.json",
      "separations.pdf",
      "separations.svg",
      "shapes.svg",
    ]);
  });

  it("odd but sound pictures are done: one pixel, nothing at all, 20 000 colours", async () => {
    const clear = sharp({ create: { width: 40, height: 30, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } });
    writeFileSync(join(folder, "clear.png"), await clear.png().toBuffer());
    writeFileSync(
      join(folder, "one.png"),
      await sharp({ create: { width: 1, height: 1, channels: 3, background: "#c81e28" } })
        .png()
        .toBuffer(),
    );
    const many = Buffer.alloc(180 * 120 * 3);
    for (let i = 0; i < many.length; i += 3) many.writeUIntBE((i / 3) * 769, i, 3);
    writeFileSync(
      join(folder, "many.png"),
      await sharp(many, { raw: { width: 180, height: 120, channels: 3 } })
        .png()
        .toBuffer(),
    );
    const { code, stderr } = await separate(...["clear.png", "one.png", "many.png"].map((name) => join(folder, name)));
    expect(code).toBe(0);
    expect(stderr).toMatch(/clear\.png: warning: .*nothing to print/);
    const report = (name: string) => JSON.parse(readFileSync(made(name, "report.json"), "utf8"));
    expect(report("clear").warnings.join()).toContain("nothing to print");
    expect(report("clear").plates).toEqual([]);
    expect(report("one").plates).toHaveLength(1);
    expect(report("many").spots.length).toBeLessThanOrEqual(16);
    const { stdout } = await run("qpdf", ["--check", made("clear", "films.pdf")]);
    expect(stdout).toContain("No syntax");
  });

  it("two of one name get two folders; a first frame and a letter that no label can print are said", async () => {
    const frames = await Promise.all(
      [20, 30].map((x) =>
        sharp(Buffer.from(ART.replace('cx="150"', `cx="${x * 5}"`)))
          .png()
          .toBuffer(),
      ),
    );
    writeFileSync(
      join(folder, "twice.gif"),
      await sharp(frames, { join: { animated: true } })
        .gif()
        .toBuffer(),
    );
    writeFileSync(join(folder, "twice.svg"), ART);
    writeFileSync(join(folder, "鷹.svg"), ART);
    const { stderr } = await separate(...["twice.gif", "twice.svg", "鷹.svg"].map((name) => join(folder, name)));
    expect(readdirSync(out)).toEqual(expect.arrayContaining(["twice", "twice 2"]));
    expect(stderr).toMatch(/twice\.gif: warning: .*animation of 2 frames/);
    expect(stderr).toMatch(/warning: .*no 鷹 \(U\+9DF9\)/);
    const { stdout } = await run("pdftotext", ["-layout", made("鷹", "films.pdf"), "-"]);
    expect(stdout).toContain("[U+9DF9] | no client given");
  });
});

describe("a wrong call", () => {
  it("with a value that is refused is answered in one line", async () => {
    const stderr = 'separate: --width takes 5 to 2000 mm (0.197 in to 78.74 in), not "-5in"\n';
    expect(await separate("--width", "-5in", "a.png")).toEqual({ code: 2, stderr });
  });

  it("that is not understood as a whole is answered with the usage", async () => {
    for (const [args, fault] of [
      [[], /no file given/],
      [["--foo", "a.png"], /--foo/],
    ] as const) {
      const { code, stderr } = await separate(...args);
      expect(code).toBe(2);
      expect(stderr).toMatch(fault);
      expect(stderr).toContain("usage:");
    }
  });
});

describe("output that cannot be written", () => {
  const art = join(folder, "whole.svg");
  const intoFolder = async (place: string, before = "") => {
    writeFileSync(art, ART);
    const command = `${before} exec "$0" --import tsx cli/src/main.ts "$1" --out "$2"`;
    const failed = await run("/bin/sh", ["-c", command, process.execPath, art, place], { cwd: ROOT }).catch(
      (error: Failed) => error,
    );
    return { code: "code" in failed ? failed.code : 0, stderr: failed.stderr };
  };

  it("is named as output before any work: no folder can be made there, or a file lies there", async () => {
    expect(await intoFolder("/proc/nope")).toEqual({ code: 2, stderr: "separate: --out: /proc/nope cannot be made\n" });
    writeFileSync(art, ART);
    expect((await intoFolder(art)).stderr).toContain(`--out: ${art} is a file, not a folder`);
  });

  it("leaves nothing half made when there is no room for all of it", async () => {
    const place = join(folder, "full");
    const { code, stderr } = await intoFolder(place, "ulimit -f 16;");
    expect(code).toBe(2);
    expect(stderr).toMatch(/whole\.svg: the output is not written: .*may hold no file so large/);
    expect(readdirSync(place)).toEqual([]);
  });
});

/** A PNG of a few bytes that claims 100 000 x 100 000 pixels. */
function hugePng(): Buffer {
  const header = Buffer.from("89504e470d0a1a0a0000000d49484452000186a0000186a0080200000000000000", "hex");
  return Buffer.concat([header, Buffer.from("0000000049454e44ae426082", "hex")]);
}
