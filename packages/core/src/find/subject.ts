import { labOfLinear } from '../colour/lab.js';
import { linearOf } from '../colour/srgb.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf } from '../raster/rect.js';
import { coverageOf } from '../shape/coverage.js';
import { partsOf } from '../shape/parts.js';
import type { Point } from '../shape/site.js';
import { widened } from '../shape/widened.js';
import { findGrounds } from './grounds.js';
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
export function subjectOf(picture: Raster): Uint8Array | null {
  const { width, height } = picture;
  const { labels, cell } = findGrounds(picture, new Uint8Array(width * height));
  const along = new Map<number, number>();
  const see = (p: number, share: number): void => {
    along.set(labels[p]!, (along.get(labels[p]!) ?? 0) + share);
  };
  for (let y = 0; y < height; y++) {
    see(y * width, 1 / height);
    see(y * width + width - 1, 1 / height);
  }
  for (let x = 0; x < width; x++) see(x, 1 / width);
  const isBefore = new Map([...along].map(([label, share]) => [label, share < ALONG]));
  const cells = cellsOf(width, height, cell);
  const before = maskWhere(cells.length, (k) => {
    const label = labels[cells[k]!.y * width + cells[k]!.x]!;
    return label >= 0 && (isBefore.get(label) ?? true);
  });
  const parts = partsOf(before, Math.ceil(width / cell))
    .map((part) => ({ part, area: part.reduce((sum, k) => sum + areaOf(cells[k]!), 0) }))
    .sort((a, b) => b.area - a.area);
  const most = parts[0]?.area ?? 0;
  const subject = new Uint8Array(labels.length);
  let count = 0;
  for (const { part, area } of parts) {
    if (area < 0.1 * most) break;
    for (const k of part) mark(subject, width, cells[k]!);
    count += area;
  }
  count += markStandingOut(picture, subject);
  const share = count / labels.length;
  if (share < SMALLEST || share > LARGEST) return null;
  const wide = widened(subject, width, height, Math.ceil(MARGIN * Math.max(width, height)));
  settleStrips(picture, subject, wide);
  return wide;
}

/** The squares of a side that cover a picture, in reading order; the last ones of a row and a column may be cut off. */
function cellsOf(width: number, height: number, side: number): Rect[] {
  const cells: Rect[] = [];
  for (let y = 0; y < height; y += side)
    for (let x = 0; x < width; x += side)
      cells.push({
        x,
        y,
        width: Math.min(side, width - x),
        height: Math.min(side, height - y),
      });
  return cells;
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

/** Squared distance of one colour from another. */
function farFrom(
  ours: readonly Float32Array[],
  p: number,
  theirs: readonly Float32Array[],
  q: number,
): number {
  let sum = 0;
  for (let c = 0; c < 3; c++) sum += (ours[c]![p]! - theirs[c]![q]!) ** 2;
  return sum;
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
  const isGrey = channels < 3;
  const lab = [0, 1, 2].map(() => new Float32Array(w * h));
  const open = new Float32Array(w * h);
  for (let y = 0, p = 0; y < h; y++)
    for (let x = 0; x < w; x++, p++) {
      const q = y * step * width + x * step;
      const i = q * channels;
      const red = linear(data[i]!);
      const { L, a, b } = labOfLinear(
        red,
        isGrey ? red : linear(data[i + 1]!),
        isGrey ? red : linear(data[i + 2]!),
      );
      lab[0]![p] = L;
      lab[1]![p] = a;
      lab[2]![p] = b;
      open[p] = subject[q] ? 0 : 1;
    }
  // Each row's background is what stands at its two ends.
  const ends = [0, w - 1].map((x) =>
    lab.map((values) => {
      const column = Float32Array.from({ length: h }, (_, y) => values[y * w + x]!);
      return boxMean({ width: 1, height: h, values: column }, 3).values;
    }),
  );
  const soft = lab.map((values) => boxMean({ width: w, height: h, values }, 1).values);
  const off = new Uint8Array(w * h);
  for (let p = 0; p < off.length; p++) {
    // The outermost columns are what the others are compared with.
    if (!open[p] || p % w < 2 || p % w >= w - 2) continue;
    const y = Math.floor(p / w);
    if (Math.min(farFrom(soft, p, ends[0]!, y), farFrom(soft, p, ends[1]!, y)) > APART * APART)
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
