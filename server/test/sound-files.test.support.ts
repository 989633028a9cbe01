// One small sound file of every kind that is read.
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import sharp, { type Sharp } from "sharp";
import { drawPicture } from "./bench.test.support.ts";

/** By kind. */
export async function soundFiles(): Promise<Record<string, Buffer>> {
  const folder = mkdtempSync(join(tmpdir(), "plain-palette-sound-"));
  try {
    const png = await drawPicture(0, 60);
    const image = () => sharp(png).flatten({ background: "#fff" });
    writeFileSync(join(folder, "a.ppm"), await ppm(image()));
    return {
      png,
      jpeg: await image().jpeg().toBuffer(),
      gif: await image().gif().toBuffer(),
      webp: await image().webp().toBuffer(),
      tiff: await image().tiff({ compression: "lzw" }).toBuffer(),
      avif: await image().avif({ effort: 0 }).toBuffer(),
      bmp: execFileSync("ppmtobmp", ["-bpp=24", join(folder, "a.ppm")], { stdio: ["ignore", "pipe", "ignore"] }),
      svg: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="60"><defs><g id="a"><circle cx="30" cy="30" r="20" fill="#d8412f"/></g></defs><use href="#a"/><path d="M0 0L20 5Z"/></svg>',
      ),
      pdf: makePdf(folder, "0.8 0.2 0.2 setrgbcolor 10 10 40 40 rectfill"),
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

async function ppm(image: Sharp): Promise<Buffer> {
  const { data, info } = await image.removeAlpha().raw().toBuffer({ resolveWithObject: true });
  return Buffer.concat([Buffer.from(`P6 ${info.width} ${info.height} 255\n`), data]);
}

function makePdf(folder: string, content: string): Buffer {
  writeFileSync(join(folder, "a.ps"), `%!PS\n<< /PageSize [60 60] >> setpagedevice ${content} showpage`);
  const pdf = join(folder, "a.pdf");
  execFileSync("gs", ["-q", "-dNOPAUSE", "-dBATCH", "-sDEVICE=pdfwrite", "-o", pdf, join(folder, "a.ps")]);
  return readFileSync(pdf);
}
