import type { Random } from '../random/random.js';
import type { Level } from './level.js';
import { depthsOf, HALF } from './level.js';

/** Nearest patches of one level: which source each patch that touches the hole is most like. */
export interface Field {
  readonly level: Level;
  /** 1 where a patch is whole, known and allowed: it may be a source. */
  readonly source: Uint8Array;
  /** Pixel of every source, in reading order, thinned when there are very many. */
  readonly sources: Int32Array;
  /** Number of the target patch centred on a pixel, or -1. */
  readonly number: Int32Array;
  /** Pixel each target is centred on, in reading order. */
  readonly target: Int32Array;
  /** Pixel of the source each target is matched with. */
  readonly match: Int32Array;
  /** Squared difference of each match. */
  readonly distance: Int32Array;
  /** Trust in each target, falling by half with every pixel into the hole. */
  readonly trust: Float32Array;
  /** Pixels to be filled. */
  readonly holes: Int32Array;
}

const MOST_SOURCES = 65536;

/** Prepares a level for matching; the matches are still unset. */
export function fieldOf(level: Level): Field {
  const { width, height, hole, banned } = level;
  const n = width * height;
  const holeSum = boxCounts(hole, width, height);
  const bannedSum = boxCounts(banned, width, height);
  const source = new Uint8Array(n);
  const number = new Int32Array(n).fill(-1);
  const targets: number[] = [];
  const sources: number[] = [];
  for (let y = HALF; y < height - HALF; y++) {
    for (let x = HALF; x < width - HALF; x++) {
      const p = y * width + x;
      if (holeSum[p]) {
        number[p] = targets.length;
        targets.push(p);
      } else if (!bannedSum[p]) {
        source[p] = 1;
        sources.push(p);
      }
    }
  }
  const step = Math.max(1, Math.floor(sources.length / MOST_SOURCES));
  const depths = depthsOf(hole, width, height);
  const holes: number[] = [];
  for (let p = 0; p < n; p++) if (hole[p]) holes.push(p);
  return {
    level,
    source,
    sources: Int32Array.from(sources.filter((_, i) => i % step === 0)),
    number,
    target: Int32Array.from(targets),
    match: new Int32Array(targets.length),
    distance: new Int32Array(targets.length),
    trust: Float32Array.from(targets, (p) => halfToThe(depths[p]!)),
    holes: Int32Array.from(holes),
  };
}

/** Matches every target with a source by chance. */
export function matchByChance(field: Field, random: Random): void {
  const last = field.sources.length - 1;
  for (let i = 0; i < field.match.length; i++)
    field.match[i] = field.sources[random.between(0, last)]!;
}

/** Takes over the matches of the level half the size. */
export function matchFromCoarse(field: Field, coarse: Field, random: Random): void {
  const { width, height } = field.level;
  const cw = coarse.level.width;
  const ch = coarse.level.height;
  const within = (v: number, high: number): number => Math.min(Math.max(v, HALF), high - HALF - 1);
  for (let i = 0; i < field.target.length; i++) {
    const tx = field.target[i]! % width;
    const ty = Math.floor(field.target[i]! / width);
    const cx = within(tx >> 1, cw);
    const cy = within(ty >> 1, ch);
    const j = coarse.number[cy * cw + cx]!;
    let x = tx;
    let y = ty;
    if (j >= 0) {
      x += 2 * ((coarse.match[j]! % cw) - cx);
      y += 2 * (Math.floor(coarse.match[j]! / cw) - cy);
    }
    field.match[i] = usableNear(field, within(x, width), within(y, height), random);
  }
}

/** A source at or near x, y; any source when there is none close by. */
function usableNear(field: Field, x: number, y: number, random: Random): number {
  const { width, height } = field.level;
  if (field.source[y * width + x]) return y * width + x;
  for (let k = 0; k < 48; k++) {
    const reach = 1 + Math.floor(k / 3);
    const a = x + random.between(-reach, reach);
    const b = y + random.between(-reach, reach);
    if (a >= 0 && b >= 0 && a < width && b < height && field.source[b * width + a])
      return b * width + a;
  }
  return field.sources[random.between(0, field.sources.length - 1)]!;
}

/** How many pixels of the patch around each pixel are set (valid where the whole patch lies inside). */
function boxCounts(mask: Uint8Array, width: number, height: number): Uint8Array {
  const rows = new Uint8Array(mask.length);
  for (let y = 0; y < height; y++) {
    let sum = 0;
    for (let x = 0; x < width; x++) {
      sum += mask[y * width + x]!;
      if (x > 2 * HALF) sum -= mask[y * width + x - 2 * HALF - 1]!;
      if (x >= 2 * HALF) rows[y * width + x - HALF] = sum;
    }
  }
  const counts = new Uint8Array(mask.length);
  for (let x = 0; x < width; x++) {
    let sum = 0;
    for (let y = 0; y < height; y++) {
      sum += rows[y * width + x]!;
      if (y > 2 * HALF) sum -= rows[(y - 2 * HALF - 1) * width + x]!;
      if (y >= 2 * HALF) counts[(y - HALF) * width + x] = sum;
    }
  }
  return counts;
}

/** 2^-d for d >= 0, linear between whole numbers: exact arithmetic only, so the same everywhere. */
function halfToThe(d: number): number {
  const whole = Math.min(60, Math.floor(d));
  let value = 1;
  for (let i = 0; i < whole; i++) value /= 2;
  return d >= 60 ? value : value * (1 - (d - whole) / 2);
}
