import { layerAt } from '../raster/layers.js';
import type { Raster } from '../raster/raster.js';
import { sampleAt } from '../raster/plane.js';
import { mapAlong } from './along.js';
import type { Laid } from './seams.js';
import { NOBODY, seamsBetween } from './seams.js';
import type { Surface } from './surface.js';

/** Longer side of the canvas on which seams are sought, px. */
const COARSE = 720;

/** Which frame each pixel of the canvas is taken from, and where there is any. */
export function ownersOf(
  frames: readonly (Raster | null)[],
  surface: Surface,
): { readonly owners: Uint8Array; readonly covered: Uint8Array } {
  const { width, height, toFrame, boxes } = surface;
  const step = Math.max(1, Math.ceil(Math.max(width, height) / COARSE));
  const [w, h] = [Math.ceil(width / step), Math.ceil(height / step)];
  const labels = seamsBetween(
    frames.map((f, k) => f && laidCoarsely(f, k, surface, step, w, h)),
    w,
    h,
  );
  const owners = new Uint8Array(width * height).fill(NOBODY);
  const covered = new Uint8Array(width * height);
  frames.forEach((frame, k) => {
    const box = boxes[k];
    const to = toFrame[k];
    if (!frame || !box || !to) return;
    const places = new Float64Array(2 * box.width);
    for (let y = box.y; y < box.y + box.height; y++) {
      const row = Math.floor(y / step) * w;
      mapAlong(to, box.x, y, places);
      for (let x = box.x, i = 0; x < box.x + box.width; x++, i += 2) {
        const p = y * width + x;
        const mine = labels[row + Math.floor(x / step)] === k;
        if (covered[p] && !mine) continue;
        if (!holds(frame, places[i]!, places[i + 1]!)) continue;
        covered[p] = 1;
        owners[p] = k;
      }
    }
  });
  return { owners, covered };
}

function holds({ width, height }: Raster, x: number, y: number): boolean {
  return x >= -0.5 && y >= -0.5 && x <= width - 0.5 && y <= height - 0.5;
}

function laidCoarsely(
  frame: Raster,
  k: number,
  surface: Surface,
  step: number,
  w: number,
  h: number,
): Laid {
  const level = Math.floor(Math.log2(step));
  const { grey, colours } = layerAt(frame, level);
  const from = colours.length ? colours : [grey];
  const planes = from.map(() => new Float32Array(w * h));
  const valid = new Uint8Array(w * h);
  const at = new Float64Array(2);
  const to = surface.toFrame[k]!;
  const box = surface.boxes[k]!;
  const scale = 1 / (1 << level);
  for (let y = Math.floor(box.y / step); y < Math.min(h, (box.y + box.height) / step); y++)
    for (let x = Math.floor(box.x / step); x < Math.min(w, (box.x + box.width) / step); x++) {
      to(x * step + (step - 1) / 2, y * step + (step - 1) / 2, at);
      // A little inside, so that a seam never runs along a frame's last pixels.
      if (at[0]! < 2 || at[1]! < 2 || at[0]! > frame.width - 3 || at[1]! > frame.height - 3)
        continue;
      const p = y * w + x;
      valid[p] = 1;
      for (let c = 0; c < from.length; c++)
        planes[c]![p] = sampleAt(
          from[c]!,
          (at[0]! + 0.5) * scale - 0.5,
          (at[1]! + 0.5) * scale - 0.5,
        );
    }
  return { planes, valid };
}
