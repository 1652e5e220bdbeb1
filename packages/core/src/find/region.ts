import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { traceOutline } from '../shape/trace.js';

/** Options of {@link growRegion}. */
export interface RegionOptions {
  /** How unlike the scribble a pixel may be, 0 (little) .. 1 (much). @default 0.5 */
  reach?: number;
}

/** A colour step this high is as hard to cross as so many pixels are far, 8-bit codes. */
const EDGE = 10;

/**
 * Grows a thing from a scribble on it: pixels are taken in the order of how little colour changes on the way to
 * them (seeded region growing, Adams, Bischof, PAMI 16(6), 1994), against a rim of the window that counts as not
 * belonging. Every pixel goes to whoever reaches it by the easier way, so the outline settles on the nearest edge.
 * @param window the picture around the scribble
 * @param scribble points on the thing, px of the window
 * @returns the outline, simplified to half a pixel; null when the scribble lies outside the window
 */
export function growRegion(
  window: Raster,
  scribble: readonly Point[],
  options: RegionOptions = {},
): Point[] | null {
  const { width, height, channels, data } = window;
  const inside = scribble
    .map(([x, y]) => [Math.round(x), Math.round(y)] as const)
    .filter(([x, y]) => x > 0 && y > 0 && x < width - 1 && y < height - 1);
  if (!inside.length) return null;
  const colours = colourChannels(channels);
  const scale = 255 / whiteOf(data);
  const step = (p: number, q: number): number => {
    let sum = 0;
    for (let c = 0; c < colours; c++)
      sum += Math.abs(data[p * channels + c]! - data[q * channels + c]!);
    return (sum * scale) / colours;
  };
  const mean = meanAt(inside.map(([x, y]) => y * width + x));
  const away = (p: number): number => {
    let sum = 0;
    for (let c = 0; c < colours; c++) sum += Math.abs(data[p * channels + c]! * scale - mean[c]!);
    return sum / colours;
  };

  // 1 = the thing, 2 = the rest; reached in rounds of rising cost, so that no heap is needed.
  const owner = new Uint8Array(width * height);
  const cost = new Float32Array(width * height).fill(Infinity);
  const buckets: number[][] = [];
  const push = (p: number, c: number, who: number): void => {
    if (c >= cost[p]!) return;
    cost[p] = c;
    owner[p] = who;
    (buckets[Math.floor(c)] ??= []).push(p);
  };
  for (const [x, y] of inside) push(y * width + x, 0, 1);
  const strictness = 2.5 - 2 * (options.reach ?? 0.5);
  for (let x = 0; x < width; x++) {
    push(x, 0, 2);
    push((height - 1) * width + x, 0, 2);
  }
  for (let y = 0; y < height; y++) {
    push(y * width, 0, 2);
    push(y * width + width - 1, 0, 2);
  }
  for (let at = 0; at < buckets.length; at++) {
    const list = buckets[at];
    if (!list) continue;
    for (let k = 0; k < list.length; k++) {
      const p = list[k]!;
      if (Math.floor(cost[p]!) !== at) continue;
      const who = owner[p]!;
      const x = p % width;
      const visit = (q: number): void => {
        const s = step(p, q);
        const unlike = who === 1 ? strictness * away(q) * 0.15 : 0;
        push(q, cost[p]! + 0.25 + (s * s) / EDGE + unlike, who);
      };
      if (x > 0) visit(p - 1);
      if (x < width - 1) visit(p + 1);
      if (p >= width) visit(p - width);
      if (p + width < width * height) visit(p + width);
    }
  }
  const mask = owner.map((v) => (v === 1 ? 1 : 0));
  const [sx, sy] = inside[0]!;
  return traceOutline(mask, width, sy * width + sx);

  function meanAt(pixels: readonly number[]): number[] {
    const sums = [0, 0, 0];
    for (const p of pixels)
      for (let c = 0; c < colours; c++) sums[c]! += data[p * channels + c]! * scale;
    return sums.map((v) => v / pixels.length);
  }
}
