import type { Plane } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Background } from './background.js';
import type { Jump } from './jumps.js';
import { foldedBack } from './splice.js';

/** Lays a picture into one whose left side is of another length. @param kept 1 = protected, a value a pixel of the picture */
export function lay(
  picture: Raster,
  out: Raster,
  jumps: readonly Jump[],
  { bars, slow }: Pick<Background, 'bars' | 'slow'>,
  kept: Uint8Array,
): void {
  const { width, height, channels, data } = picture;
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const half = white > 1 ? 0.5 : 0;
  const back = new Float64Array(out.width);
  const even = new Float64Array(out.width);
  const slowRows = slow.map((plane) => new Float64Array(plane.width));
  const amount = out.width - width;
  const reach = Math.max(8, Math.round(1.5 * Math.max(...jumps.map((j) => Math.abs(j.step)))));
  const order = jumps.map((_, k) => k);
  for (let y = 0; y < height; y++) {
    const row = Math.min(bars.length - 1, y >> 1);
    order.sort((a, b) => jumps[a]!.path[row]! - jumps[b]!.path[row]!);
    let shift = 0;
    let x = 0;
    for (const k of order) {
      const end = Math.min(out.width, 2 * jumps[k]!.path[row]! + 2 + shift);
      for (; x < end; x++) back[x] = shift;
      shift += jumps[k]!.step;
    }
    back.fill(amount, x);
    smoothed(back, even, reach);
    slow.forEach((plane, c) => rowBetween(plane, (y + 0.5) / 2 - 0.5, slowRows[c]!));
    for (let u = 0; u < out.width; u++) {
      const from = foldedBack(u - back[u]!, Math.max(1, 2 * bars[row]!));
      const i = (y * width + from) * channels;
      const o = (y * out.width + u) * channels;
      if ((u >= amount && kept[y * width + u - amount]) || even[u] === u - from) {
        for (let c = 0; c < channels; c++) out.data[o + c] = data[i + c]!;
        continue;
      }
      for (let c = 0; c < colours; c++) {
        const here = between(slowRows[c]!, (from + 0.5) / 2 - 0.5);
        const there = between(slowRows[c]!, (u - even[u]! + 0.5) / 2 - 0.5);
        const value = data[i + c]! + ((there - here) * white) / 255;
        out.data[o + c] = value < 0 ? 0 : value >= white ? white : value + half;
      }
      if (channels > colours) out.data[o + colours] = data[i + colours]!;
    }
  }
}

/** A plane's row at a height between two of its own. */
function rowBetween({ width, height, values }: Plane, y: number, out: Float64Array): void {
  const cy = Math.min(height - 1, Math.max(0, y));
  const above = Math.floor(cy) * width;
  const below = Math.min(height - 1, Math.floor(cy) + 1) * width;
  const t = cy - Math.floor(cy);
  for (let x = 0; x < width; x++) out[x] = values[above + x]! * (1 - t) + values[below + x]! * t;
}

/** A row's value between two of its own, the ends repeated. */
function between(row: Float64Array, x: number): number {
  const last = row.length - 1;
  if (x <= 0) return row[0]!;
  if (x >= last) return row[last]!;
  const at = x | 0;
  return row[at]! + (row[at + 1]! - row[at]!) * (x - at);
}

/** Means over 2 reach + 1 values, the ends repeated. */
function smoothed(values: Float64Array, out: Float64Array, reach: number): void {
  const last = values.length - 1;
  let sum = 0;
  for (let k = -reach; k <= reach; k++) sum += values[Math.min(last, Math.max(0, k))]!;
  for (let x = 0; x <= last; x++) {
    out[x] = sum / (2 * reach + 1);
    sum += values[Math.min(last, x + reach + 1)]! - values[Math.max(0, x - reach)]!;
  }
}
