import type { Raster } from '../raster/raster.js';
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
  const share = count / labels.length;
  if (share < SMALLEST || share > LARGEST) return null;
  return widened(subject, width, height, Math.ceil(MARGIN * Math.max(width, height)));
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
