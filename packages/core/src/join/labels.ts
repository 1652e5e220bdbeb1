import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import type { Size } from './cameras.js';
import type { Laid } from './seams.js';
import { seamsBetween } from './seams.js';
import type { Surface } from './surface.js';

/** Longer side of the canvas on which seams are sought, px. */
const COARSE = 440;

/** Which frame each part of the canvas is taken from. */
export interface Labels {
  /** One for every step x step pixels of the canvas, row by row; NOBODY where no frame reaches. */
  readonly labels: Uint8Array;
  readonly width: number;
  readonly step: number;
}

/** px of the canvas that one label stands for. */
export function labelStep({ width, height }: Pick<Surface, 'width' | 'height'>): number {
  return Math.max(1, Math.ceil(Math.max(width, height) / COARSE));
}

/** @param planes each frame's channels, evened, reduced about as far as the labels, 0..255; null for frames that do not belong */
export function labelsOf(
  planes: readonly (readonly Plane[] | null)[],
  sizes: readonly Size[],
  surface: Surface,
): Labels {
  const step = labelStep(surface);
  const [w, h] = [Math.ceil(surface.width / step), Math.ceil(surface.height / step)];
  const laid = planes.map((p, k) => p && laidCoarsely(p, sizes[k]!, k, surface, step, w, h));
  return { labels: seamsBetween(laid, w, h), width: w, step };
}

function laidCoarsely(
  from: readonly Plane[],
  size: Size,
  k: number,
  surface: Surface,
  step: number,
  w: number,
  h: number,
): Laid {
  const planes = from.map(() => new Float32Array(w * h));
  const valid = new Uint8Array(w * h);
  const at = new Float64Array(2);
  const to = surface.toFrame[k]!;
  const box = surface.boxes[k]!;
  const scale = from[0]!.width / size.width;
  for (let y = Math.floor(box.y / step); y < Math.min(h, (box.y + box.height) / step); y++)
    for (let x = Math.floor(box.x / step); x < Math.min(w, (box.x + box.width) / step); x++) {
      to(x * step + (step - 1) / 2, y * step + (step - 1) / 2, at);
      // A little inside, so that a seam never runs along a frame's last pixels.
      if (at[0]! < 2 || at[1]! < 2 || at[0]! > size.width - 3 || at[1]! > size.height - 3) continue;
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
