import { seededRandom } from '../random/random.js';
import { layerAt } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect, shift } from '../raster/rect.js';
import { boxOf } from './site-window.js';

/** Something that is seen twice within sight. */
export interface Repeat {
  /** Side of a square of as much as is repeated, px. */
  readonly px: number;
  readonly box: Rect;
  readonly twin: Rect;
}

/** Half the side of a patch, px. */
const HALF = 5;
const SIDE = 2 * HALF + 1;
/** Step of the grid on which a site is asked, px. */
const STEP = 4;
/** Standard deviation from which on a patch is something a viewer may know again, codes. */
const MARKED = 2.2;
/** From which on there is grain at least, which no two places share by chance. */
const GRAINY = 0.8;
/** Correlation of the same thing seen twice, and of the same grain. */
const SAME = 0.955;
const EXACT = 0.985;
/** What only its grain gives away counts half: it has to be larger to be told. */
const FAINT = 0.5;
/** Share of the picture's longer side that is taken in at one look, and at most so many px. */
const SIGHT = 0.3;
const MOST_SIGHT = 360;
/** A look that so many places within sight share is nobody's. */
const COMMON = 160;
/** Share of the surroundings that may repeat by the same shift before it is the picture's own pattern. */
const PATTERN = 0.25;

/** How far from a place something may lie that is seen together with it, px. */
export function sightIn({
  width,
  height,
}: {
  readonly width: number;
  readonly height: number;
}): number {
  return Math.min(MOST_SIGHT, Math.round(SIGHT * Math.max(width, height)));
}

/** Two shifts as one number. */
const KEY = 8192;

const PAIRS = comparisons(32);

/** A picture made ready to be asked what is seen twice in it. */
export class Repeats {
  private readonly grey: Plane;
  private readonly deviation: Float32Array;
  private readonly looks: Uint32Array;
  private readonly index: (look: number, half: number, from: number, to: number) => Int32Array;

  /** @param sight px; see {@link sightIn} */
  constructor(
    picture: Raster,
    private readonly sight = sightIn(picture),
  ) {
    const whole = layerAt(picture, 0).grey;
    // What changes slowly is alike in many places and tells nothing.
    const slow = boxMean(whole, HALF).values;
    for (let p = 0; p < slow.length; p++) slow[p] = whole.values[p]! - slow[p]!;
    this.grey = { ...whole, values: slow };
    this.deviation = deviations(this.grey);
    this.looks = looksOf(boxMean(this.grey, 1), this.deviation);
    const { width, height } = picture;
    this.index = indexOf(this.looks, this.deviation, width, height);
  }

  /**
   * The largest thing in a site that is seen again within sight by one shift, though its surroundings do not repeat so:
   * places with the same order of tones at 32 pairs of pixels (Calonder et al., "BRIEF: Binary Robust Independent
   * Elementary Features", ECCV 2010), compared by correlation, voting for their shift.
   * @param pixels of the site
   */
  of(pixels: Int32Array): Repeat | null {
    const { width } = this.grey;
    const asked = pixels.filter((p) => this.asks(p));
    if (asked.length < 6) return null;
    const votes = this.votesOf(asked);
    const box = boxOf(pixels, width);
    const around = this.around(new Set(pixels), box);
    let best: { key: number; list: number[] } | null = null;
    for (const [key, list] of votes)
      if (
        list.length >= 4 &&
        (!best || list.length > best.list.length) &&
        !isPattern(this.grey, around, key)
      )
        best = { key, list };
    if (!best) return null;
    const place = grow(boxOf(Int32Array.from(best.list), width), HALF);
    const dy = Math.round(best.key / KEY);
    const marked = best.list.filter((p) => this.deviation[p]! >= MARKED).length;
    const weight = FAINT + (1 - FAINT) * Math.min(1, (2 * marked) / best.list.length);
    return {
      px: weight * STEP * Math.sqrt(best.list.length),
      box: place,
      twin: shift(place, best.key - dy * KEY, dy),
    };
  }

  /** Places of the grid at which something is marked. */
  private asks(p: number): boolean {
    const { width, height } = this.grey;
    const [x, y] = [p % width, Math.floor(p / width)];
    if (x % STEP || y % STEP || this.deviation[p]! < GRAINY) return false;
    return x >= HALF && y >= HALF && x < width - HALF && y < height - HALF;
  }

  /** Places that show the same as one of those asked, by their shift. */
  private votesOf(asked: Int32Array): Map<number, number[]> {
    const { width } = this.grey;
    const reach = this.sight * (width + 1);
    const votes = new Map<number, number[]>();
    for (const p of asked) {
      const [x, y] = [p % width, Math.floor(p / width)];
      const seen = new Set<number>();
      const same = this.deviation[p]! < MARKED ? EXACT : SAME;
      for (const half of [0, 1]) {
        const near: number[] = [];
        for (const q of this.index(this.looks[p]!, half, p - reach, p + reach)) {
          const [dx, dy] = [(q % width) - x, Math.floor(q / width) - y];
          if (Math.abs(dx) > this.sight || Math.abs(dy) > this.sight) continue;
          if (Math.abs(dx) < SIDE && Math.abs(dy) < SIDE) continue;
          near.push(q);
        }
        if (near.length > COMMON) continue;
        for (const q of near) {
          const key = (Math.floor(q / width) - y) * KEY + (q % width) - x;
          if (seen.has(key)) continue;
          seen.add(key);
          if (correlation(this.grey, p, q) < same) continue;
          const list = votes.get(key) ?? [];
          list.push(p);
          votes.set(key, list);
        }
      }
    }
    return votes;
  }

  private around(inside: ReadonlySet<number>, box: Rect): number[] {
    const near = intersect(grow(box, 28), frameOf(this.grey));
    const found: number[] = [];
    for (let y = near.y; y < near.y + near.height; y++)
      for (let x = near.x; x < near.x + near.width; x++) {
        const p = y * this.grey.width + x;
        if (this.asks(p) && !inside.has(p)) found.push(p);
      }
    return found;
  }
}

/** Whether what surrounds the site repeats by the same shift. */
function isPattern(grey: Plane, around: readonly number[], key: number): boolean {
  const dy = Math.round(key / KEY);
  const dx = key - dy * KEY;
  let [same, all] = [0, 0];
  for (const p of around) {
    const [u, v] = [(p % grey.width) + dx, Math.floor(p / grey.width) + dy];
    if (u < HALF || v < HALF || u >= grey.width - HALF || v >= grey.height - HALF) continue;
    all++;
    if (correlation(grey, p, v * grey.width + u) > 0.8) same++;
  }
  return all > 0 && same / all > PATTERN;
}

function comparisons(count: number): readonly (readonly [number, number, number, number])[] {
  const random = seededRandom(41);
  const at = (): number => random.between(-HALF, HALF);
  return Array.from({ length: count }, () => [at(), at(), at(), at()] as const);
}

/** Bits of which pixel of each pair is lighter; 0 where a patch is not marked. */
function looksOf({ width, height, values }: Plane, deviation: Float32Array): Uint32Array {
  const looks = new Uint32Array(width * height);
  const from = PAIRS.map(([x, y]) => y * width + x);
  const to = PAIRS.map(([, , x, y]) => y * width + x);
  for (let y = HALF; y < height - HALF; y++)
    for (let x = HALF, p = y * width + HALF; x < width - HALF; x++, p++) {
      if (deviation[p]! < GRAINY) continue;
      let bits = 0;
      for (let k = 0; k < 32; k++)
        bits = (bits << 1) | (values[p + from[k]!]! > values[p + to[k]!]! ? 1 : 0);
      looks[p] = bits >>> 0;
    }
  return looks;
}

/** Places between two others by either half of their look. */
function indexOf(
  looks: Uint32Array,
  deviation: Float32Array,
  width: number,
  height: number,
): (look: number, half: number, from: number, to: number) => Int32Array {
  const halves = [0, 1].map((half) => {
    const starts = new Int32Array(65537);
    const places: number[] = [];
    for (let y = HALF; y < height - HALF; y++)
      for (let x = HALF; x < width - HALF; x++)
        if (deviation[y * width + x]! >= GRAINY) places.push(y * width + x);
    const key = (p: number): number => (half ? looks[p]! >>> 16 : looks[p]! & 0xffff);
    for (const p of places) starts[key(p) + 1]!++;
    for (let k = 0; k < 65536; k++) starts[k + 1]! += starts[k]!;
    const order = new Int32Array(places.length);
    const next = starts.slice();
    for (const p of places) order[next[key(p)]!++] = p;
    return { starts, order };
  });
  return (look, half, from, to) => {
    const { starts, order } = halves[half]!;
    const key = half ? look >>> 16 : look & 0xffff;
    const [a, b] = [starts[key]!, starts[key + 1]!];
    return order.subarray(firstFrom(order, from, a, b), firstFrom(order, to + 1, a, b));
  };
}

/** The first of `order[a..b)`, which ascends, that is not below `value`. */
function firstFrom(order: Int32Array, value: number, a: number, b: number): number {
  while (a < b) {
    const middle = (a + b) >> 1;
    if (order[middle]! < value) a = middle + 1;
    else b = middle;
  }
  return a;
}

function deviations(grey: Plane): Float32Array {
  const mean = boxMean(grey, HALF).values;
  const square = boxMean({ ...grey, values: grey.values.map((v) => v * v) }, HALF).values;
  return square.map((v, p) => Math.sqrt(Math.max(0, v - mean[p]! * mean[p]!)));
}

function correlation({ width, values }: Plane, p: number, q: number): number {
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let v = -HALF; v <= HALF; v++)
    for (let u = -HALF; u <= HALF; u++) {
      const one = values[p + v * width + u]!;
      const two = values[q + v * width + u]!;
      a += one;
      b += two;
      aa += one * one;
      bb += two * two;
      ab += one * two;
    }
  const n = SIDE * SIDE;
  const va = aa - (a * a) / n;
  const vb = bb - (b * b) / n;
  return va < 0.4 * n || vb < 0.4 * n ? 0 : (ab - (a * b) / n) / Math.sqrt(va * vb);
}
