import { layerAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { boxMean, sampleAt } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, createRaster, depthOf, whiteOf } from '../raster/raster.js';
import type { SpliceCosts } from './splice.js';
import { foldedBack, leastSplice, spliceCosts } from './splice.js';

/** Thrown when a side has too little background to stretch. */
export class CannotStretch extends Error {}

/** A picture whose left side became longer. */
export interface Longer {
  readonly picture: Raster;
  /** What is protected, moved along. */
  readonly kept: Uint8Array;
  /** How much longer the background is than before. */
  readonly factor: number;
  /** Worst difference at a splice beside those of ordinary neighbours. */
  readonly splices: number;
}

/** One splice: after column path[y] (of the halved picture) the row goes back by `step` px of the full one. */
interface Jump {
  readonly path: Int32Array;
  readonly step: number;
  /** Mean cost a row. */
  readonly cost: number;
}

/** Steps a splice goes back by that are tried, px of the halved picture. */
const STEPS = [32, 20, 12, 6];
/** How much dearer a longer step may be and still be taken. */
const DEARER = 1.3;
/** px of the halved picture that splices keep from what is protected. */
const CLEAR = 1;
/** Half the side of the squares that part what changes slowly from the detail, px of the halved picture. */
const SLOW = 10;
/** What keeps splices apart: the cost added at one for the next, in usual differences. */
const APART = 4;

/** Makes the background left of what is protected longer. @param amount px @throws CannotStretch */
export function longer(picture: Raster, kept: Uint8Array, amount: number, side: string): Longer {
  const { width, height } = picture;
  const { grey, colours } = layerAt(picture, 1);
  const half = colours.length ? colours : [grey];
  const shut = shutOf(kept, width, grey);
  const slow = slowOf(half, shut);
  const detail = half.map((plane, c) => ({
    ...plane,
    values: plane.values.map((v, p) => v - slow[c]!.values[p]!),
  }));
  const bars = barsOf(shut, grey.width, grey.height);
  const usual = usualStep(detail, shut);
  const jumps = jumpsFor(amount, detail, bars, usual, side);
  const out = createRaster(width + amount, height, picture.channels, depthOf(picture.data));
  lay(picture, out, jumps, bars, kept, slow);
  const moved = new Uint8Array(out.width * height);
  for (let y = 0; y < height; y++)
    moved.set(kept.subarray(y * width, (y + 1) * width), y * out.width + amount);
  const room = 2 * (bars.reduce((sum, b) => sum + b, 0) / bars.length);
  return {
    picture: out,
    kept: moved,
    factor: 1 + amount / room,
    splices: jumps.reduce((worst, j) => Math.max(worst, j.cost / usual), 0),
  };
}

/** What is protected, on the halved picture. */
function shutOf(kept: Uint8Array, width: number, { width: w, height: h }: Plane): Uint8Array {
  const shut = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const p = 2 * y * width + 2 * x;
      if (kept[p] || kept[p + 1] || kept[p + width] || kept[p + width + 1]) shut[y * w + x] = 1;
    }
  return shut;
}

/** First protected column of every row; the middle of all that is protected where a row has none. */
function barsOf(shut: Uint8Array, width: number, height: number): Int32Array {
  const bars = new Int32Array(height).fill(-1);
  let [low, high] = [width, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!shut[y * width + x]) continue;
      if (bars[y]! < 0) bars[y] = x;
      if (x < low) low = x;
      if (x > high) high = x;
    }
  const middle = high < 0 ? width >> 1 : (low + high) >> 1;
  return bars.map((b) => (b < 0 ? middle : b));
}

function jumpsFor(
  amount: number,
  detail: readonly Plane[],
  bars: Int32Array,
  usual: number,
  side: string,
): Jump[] {
  const { width, height } = detail[0]!;
  const open = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 1; x < bars[y]! - CLEAR; x++) open[y * width + x] = 1;
  const tried = STEPS.filter((s, k) => k === STEPS.length - 1 || s <= amount / 2).map((step) => {
    const costs = spliceCosts(detail, step, open, bars);
    return { step, costs, first: leastSplice(costs, width, height) };
  });
  const cheapest = Math.min(...tried.map((t) => t.first?.cost ?? Infinity));
  const chosen = tried.find((t) => t.first && t.first.cost <= DEARER * cheapest);
  if (!chosen)
    throw new CannotStretch(
      `what is protected leaves too little background at the ${side} to stretch; fill that side instead`,
    );
  const count = Math.max(1, Math.round(amount / (2 * chosen.step)));
  const { beside, above }: SpliceCosts = chosen.costs;
  const jumps: Jump[] = [];
  for (let k = 0; k < count; k++) {
    const found = leastSplice({ beside, above }, width, height)!;
    const step = Math.round((amount * (k + 1)) / count) - Math.round((amount * k) / count);
    jumps.push({ path: found.path, step, cost: found.cost / height });
    for (let y = 0; y < height; y++) {
      // As far apart as the row allows.
      const reach = Math.max(1, Math.floor((0.6 * bars[y]!) / count));
      const at = found.path[y]!;
      for (let x = Math.max(0, at - reach); x <= Math.min(width - 1, at + reach); x++)
        beside[y * width + x]! += APART * usual * (1 - Math.abs(x - at) / (reach + 1));
    }
  }
  // Costs without what was added to keep splices apart.
  const plain = spliceCosts(detail, chosen.step, open, bars).beside;
  return jumps.map((j) => ({
    ...j,
    cost: j.path.reduce((sum, x, y) => sum + plain[y * width + x]!, 0) / height,
  }));
}

/** Mean difference of ordinary neighbours, as the costs count it. */
function usualStep(detail: readonly Plane[], shut: Uint8Array): number {
  let [sum, n] = [0, 0];
  for (let p = 1; p < shut.length; p++) {
    if (shut[p] || shut[p - 1]) continue;
    for (const { values } of detail) sum += Math.abs(values[p]! - values[p - 1]!);
    n++;
  }
  return sum / Math.max(1, n) || 1;
}

/** What changes slowly, from what is not protected alone: means over squares, twice. */
function slowOf(planes: readonly Plane[], shut: Uint8Array): Plane[] {
  const { width, height } = planes[0]!;
  const twice = (values: Float32Array): Float32Array =>
    boxMean(boxMean({ width, height, values }, SLOW), SLOW).values;
  const open = Float32Array.from(shut, (s) => 1 - s);
  const share = twice(open);
  return planes.map(({ values }) => {
    const known = new Float32Array(values.length);
    for (let p = 0; p < known.length; p++) known[p] = values[p]! * open[p]!;
    const slow = twice(known);
    for (let p = 0; p < slow.length; p++)
      slow[p] = share[p]! > 1e-4 ? slow[p]! / share[p]! : values[p]!;
    return { width, height, values: slow };
  });
}

function lay(
  picture: Raster,
  out: Raster,
  jumps: readonly Jump[],
  bars: Int32Array,
  kept: Uint8Array,
  slow: readonly Plane[],
): void {
  const { width, height, channels, data } = picture;
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const half = white > 1 ? 0.5 : 0;
  const back = new Float64Array(out.width);
  const even = new Float64Array(out.width);
  const amount = out.width - width;
  const reach = Math.max(8, Math.round(1.5 * Math.max(...jumps.map((j) => j.step))));
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
    const v = (y + 0.5) / 2 - 0.5;
    for (let u = 0; u < out.width; u++) {
      const from = foldedBack(u - back[u]!, Math.max(1, 2 * bars[row]!));
      const i = (y * width + from) * channels;
      const o = (y * out.width + u) * channels;
      if ((u >= amount && kept[y * width + u - amount]) || even[u] === u - from) {
        for (let c = 0; c < channels; c++) out.data[o + c] = data[i + c]!;
        continue;
      }
      for (let c = 0; c < colours; c++) {
        const here = sampleAt(slow[c]!, (from + 0.5) / 2 - 0.5, v);
        const there = sampleAt(slow[c]!, (u - even[u]! + 0.5) / 2 - 0.5, v);
        const value = data[i + c]! + ((there - here) * white) / 255;
        out.data[o + c] = value < 0 ? 0 : value >= white ? white : value + half;
      }
      if (channels > colours) out.data[o + colours] = data[i + colours]!;
    }
  }
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
