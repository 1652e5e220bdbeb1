import { labOfSrgb } from '../colour/lab.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import { partsOf } from '../shape/parts.js';
import { findGrounds } from './grounds.js';

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
  const { labels } = findGrounds(picture, new Uint8Array(width * height));
  const along = new Map<number, number>();
  const see = (p: number, share: number): void => {
    along.set(labels[p]!, (along.get(labels[p]!) ?? 0) + share);
  };
  for (let y = 0; y < height; y++) {
    see(y * width, 1 / height);
    see(y * width + width - 1, 1 / height);
  }
  for (let x = 0; x < width; x++) see(x, 1 / width);
  const before = Uint8Array.from(labels, (l) => (l < 0 || (along.get(l) ?? 0) >= ALONG ? 0 : 1));
  const parts = partsOf(before, width).sort((a, b) => b.length - a.length);
  const most = parts[0]?.length ?? 0;
  const subject = new Uint8Array(labels.length);
  let count = 0;
  for (const part of parts) {
    if (part.length < 0.1 * most) break;
    for (const p of part) subject[p] = 1;
    count += part.length;
  }
  for (const p of standingOut(picture, subject)) {
    subject[p] = 1;
    count++;
  }
  const share = count / labels.length;
  if (share < SMALLEST || share > LARGEST) return null;
  return widened(subject, width, height, Math.ceil(MARGIN * Math.max(width, height)));
}

/** px of the reduced picture a thing may be away from the subject and still belong to it. */
const BESIDE = 3;
/** CIELAB distance from the smooth background at which something is no background. */
const APART = 13;

/**
 * Pixels beside the subject that differ from the background around them, such as a small thing that the grounds took for
 * a part of it.
 */
function standingOut(picture: Raster, subject: Uint8Array): number[] {
  const { width, height, channels, data } = picture;
  const step = Math.max(1, Math.round(Math.max(width, height) / 400));
  const [w, h] = [Math.floor(width / step), Math.floor(height / step)];
  const white = whiteOf(data);
  const lab = [0, 1, 2].map(() => new Float32Array(w * h));
  const open = new Float32Array(w * h);
  for (let y = 0, p = 0; y < h; y++)
    for (let x = 0; x < w; x++, p++) {
      const q = y * step * width + x * step;
      const at = (c: number): number => data[q * channels + (channels >= 3 ? c : 0)]! / white;
      const { L, a, b } = labOfSrgb(at(0), at(1), at(2));
      [lab[0]![p], lab[1]![p], lab[2]![p]] = [L, a, b];
      open[p] = subject[q] ? 0 : 1;
    }
  const reach = Math.round(0.09 * Math.max(w, h));
  const mean = (values: Float32Array): Float32Array =>
    boxMean({ width: w, height: h, values }, reach).values;
  const known = mean(open);
  const around = lab.map((values) => mean(values.map((v, p) => v * open[p]!)));
  const off = new Uint8Array(w * h);
  for (let p = 0; p < off.length; p++) {
    if (!open[p] || known[p]! < 0.02) continue;
    let sum = 0;
    for (let c = 0; c < 3; c++) sum += (lab[c]![p]! - around[c]![p]! / known[p]!) ** 2;
    if (sum > APART * APART) off[p] = 1;
  }
  const near = widened(
    open.reduce(
      (mask, v, p) => {
        mask[p] = 1 - v;
        return mask;
      },
      new Uint8Array(w * h),
    ),
    w,
    h,
    BESIDE,
  );
  return partsOf(off, w)
    .filter((part) => part.some((p) => near[p]) && part.length < 0.08 * w * h)
    .flatMap((part) =>
      [...part].flatMap((p) => {
        const [x0, y0] = [(p % w) * step, Math.floor(p / w) * step];
        const all: number[] = [];
        for (let y = y0; y < y0 + step; y++)
          for (let x = x0; x < x0 + step; x++) if (!subject[y * width + x]) all.push(y * width + x);
        return all;
      }),
    );
}

/** Every set pixel and those within a square of side 2 by + 1 round it. */
function widened(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const rows = new Uint8Array(mask.length);
  for (let y = 0; y < height; y++)
    for (let x = 0, last = -Infinity, p = y * width; x < width + by; x++) {
      if (x < width && mask[p + x]) last = x;
      if (x - by >= 0 && last >= x - 2 * by) rows[p + x - by] = 1;
    }
  const out = new Uint8Array(mask.length);
  for (let x = 0; x < width; x++)
    for (let y = 0, last = -Infinity; y < height + by; y++) {
      if (y < height && rows[y * width + x]) last = y;
      if (y - by >= 0 && last >= y - 2 * by) out[(y - by) * width + x] = 1;
    }
  return out;
}
