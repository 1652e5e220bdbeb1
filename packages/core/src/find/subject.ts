import { layLab } from '../colour/lab.js';
import { linearOf } from '../colour/srgb.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf } from '../raster/rect.js';
import { coverageOf } from '../shape/coverage.js';
import { partsOf } from '../shape/parts.js';
import type { Point } from '../shape/site.js';
import type { Crew } from '../task/crew.js';
import { widened } from '../shape/widened.js';
import { groundCells } from './ground-cells.js';
import { settleStrips } from './last-strip.js';
import { maskWhere } from '../shape/mask-where.js';

/** Share of a side's border from which on a ground that lies along it is background. */
const ALONG = 0.06;
/** Shares of the picture between which a thing can be the subject. */
const [SMALLEST, LARGEST] = [0.01, 0.65];
/** Share of the longer side by which the subject is taken wider than its grounds say. */
const MARGIN = 0.008;

/**
 * What stands before a background: the grounds that lie along none of the picture's left, right and upper borders, their
 * largest connected part and what is near its size.
 * @returns 1 = subject, a value a pixel; null when nothing stands out
 */
export function subjectOf(picture: Raster, crew?: Crew): Uint8Array | null {
  const { width, height } = picture;
  const { cell, columns, regions, count } = groundCells(
    picture,
    new Uint8Array(width * height),
    crew,
  );
  // Of every ground, and last of what is none.
  const along = new Float64Array(count + 1);
  const see = (column: number, row: number, share: number): void => {
    const region = regions[row * columns + column]!;
    along[region < 0 ? count : region]! += share;
  };
  for (let y = 0; y < height; y++) {
    see(0, Math.floor(y / cell), 1 / height);
    see(columns - 1, Math.floor(y / cell), 1 / height);
  }
  for (let x = 0; x < width; x++) see(Math.floor(x / cell), 0, 1 / width);
  const before = maskWhere(regions.length, (k) => regions[k]! >= 0 && along[regions[k]!]! < ALONG);
  const cellAt = (k: number): Rect => {
    const [x, y] = [(k % columns) * cell, Math.floor(k / columns) * cell];
    return { x, y, width: Math.min(cell, width - x), height: Math.min(cell, height - y) };
  };
  const parts = partsOf(before, columns)
    .map((part) => ({ part, area: part.reduce((sum, k) => sum + areaOf(cellAt(k)), 0) }))
    .sort((a, b) => b.area - a.area);
  const most = parts[0]?.area ?? 0;
  const subject = new Uint8Array(width * height);
  let size = 0;
  for (const { part, area } of parts) {
    if (area < 0.1 * most) break;
    for (const k of part) mark(subject, width, cellAt(k));
    size += area;
  }
  size += markStandingOut(picture, subject);
  const share = size / subject.length;
  if (share < SMALLEST || share > LARGEST) return null;
  const wide = widened(subject, width, height, Math.ceil(MARGIN * Math.max(width, height)));
  settleStrips(picture, subject, wide);
  return wide;
}

function areaOf({ width, height }: Rect): number {
  return width * height;
}

function mark(mask: Uint8Array, width: number, { x, y, ...rect }: Rect): void {
  for (let row = y; row < y + rect.height; row++)
    mask.fill(1, row * width + x, row * width + x + rect.width);
}

/**
 * The subject as a person outlined it, or as it is found where nobody did.
 * @param outline px of the picture
 * @returns 1 = subject, a value a pixel; null when nothing stands out
 */
export function subjectAs(picture: Raster, outline: readonly Point[] | null): Uint8Array | null {
  if (!outline) return subjectOf(picture);
  const frame = frameOf(picture);
  const brush = { width: 1, softness: 0, flow: 1 };
  const { rect, values } = coverageOf({ kind: 'outline', points: outline }, brush, frame);
  const subject = new Uint8Array(picture.width * picture.height);
  values.forEach((covered, i) => {
    const p = (rect.y + Math.floor(i / rect.width)) * picture.width + rect.x + (i % rect.width);
    if (covered > 0) subject[p] = 1;
  });
  return subject;
}

/** px of the reduced picture a thing may be away from the subject and still belong to it. */
const BESIDE = 3;
/** Share of the picture up to which something beside the subject is taken for a thing. */
const LARGEST_BESIDE = 0.4;
/** CIELAB distance from what stands at both ends of a row at which something is no background. */
const APART = 13;

type Colour = readonly [L: number, a: number, b: number];

/** Squared distance of a pixel's colour from another. */
function farFrom(planes: readonly Float32Array[], p: number, colour: Colour): number {
  const L = planes[0]![p]! - colour[0];
  const a = planes[1]![p]! - colour[1];
  const b = planes[2]![p]! - colour[2];
  return L * L + a * a + b * b;
}

/**
 * Adds what lies beside the subject and differs from the background at both ends of its row, such as a small thing that the
 * grounds took for a part of it.
 * @returns how many pixels were added
 */
function markStandingOut(picture: Raster, subject: Uint8Array): number {
  const { width, height, channels, data } = picture;
  const step = Math.max(1, Math.round(Math.max(width, height) / 400));
  const [w, h] = [Math.floor(width / step), Math.floor(height / step)];
  const linear = linearOf(whiteOf(data));
  const [green, blue] = channels < 3 ? [0, 0] : [1, 2];
  const lab = [0, 1, 2].map(() => new Float32Array(w * h)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  const open = new Float32Array(w * h);
  for (let y = 0, p = 0; y < h; y++)
    for (let x = 0; x < w; x++, p++) {
      const q = y * step * width + x * step;
      const i = q * channels;
      layLab(lab, p, linear(data[i]!), linear(data[i + green]!), linear(data[i + blue]!));
      open[p] = subject[q] ? 0 : 1;
    }
  // Each row's background is what stands at its two ends.
  const ends = [0, w - 1].map((x) =>
    lab.map((values) => {
      const column = new Float32Array(h);
      for (let y = 0; y < h; y++) column[y] = values[y * w + x]!;
      return boxMean({ width: 1, height: h, values: column }, 3).values;
    }),
  );
  const soft = lab.map((values) => boxMean({ width: w, height: h, values }, 1).values);
  const off = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) {
    const [left, right] = ends.map((end) => end.map((values) => values[y]!) as unknown as Colour);
    // The outermost columns are what the others are compared with.
    for (let p = y * w + 2; p < (y + 1) * w - 2; p++)
      if (open[p] && Math.min(farFrom(soft, p, left!), farFrom(soft, p, right!)) > APART * APART)
        off[p] = 1;
  }
  const closed = maskWhere(w * h, (p) => open[p] === 0);
  const near = widened(closed, w, h, BESIDE);
  let count = 0;
  for (const part of partsOf(off, w)) {
    if (part.length >= LARGEST_BESIDE * w * h || !part.some((p) => near[p])) continue;
    for (const p of part) {
      const [x0, y0] = [(p % w) * step, Math.floor(p / w) * step];
      for (let y = y0; y < y0 + step; y++)
        for (let q = y * width + x0; q < y * width + x0 + step; q++) {
          if (subject[q]) continue;
          subject[q] = 1;
          count++;
        }
    }
  }
  return count;
}
