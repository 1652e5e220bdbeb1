import type { Random } from '../random/random.js';
import { depthsOf } from '../shape/depth.js';
import type { Level } from './level.js';
import { HALF } from './level.js';
import type { Kernel } from './memory.js';
import { kernelMemory } from './memory.js';

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
  /** Works on the arrays above, which lie in its memory. */
  readonly kernel: Kernel;
  /** Room for the kernel's own use. */
  readonly scratch: Int32Array;
}

const MOST_SOURCES = 65536;
const SLACK = 64;
const SCRATCH = 98;

/** Prepares a level for matching; the matches are still unset. */
export function fieldOf(level: Level): Field {
  const { width, height, hole, banned } = level;
  const n = width * height;
  const holeSum = boxCounts(hole, width, height);
  const bannedSum = boxCounts(banned, width, height);
  let count = 0;
  for (let y = HALF; y < height - HALF; y++)
    for (let x = HALF; x < width - HALF; x++) if (holeSum[y * width + x]) count++;
  const holes = pixelsOf(hole);
  const memory = kernelMemory(9 * n + 16 * count + 4 * holes.length + 4 * SCRATCH + SLACK, 9);
  // Rows are loaded 16 bytes at a time: the last ones reach a little beyond the pixels.
  const pixels = memory.bytes(4 * n + SLACK).subarray(0, 4 * n);
  pixels.set(level.pixels);
  const source = memory.bytes(n);
  const number = memory.words(n).fill(-1);
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
  const target = memory.words(count);
  target.set(targets);
  const trust = memory.floats(count);
  for (let i = 0; i < count; i++) trust[i] = halfToThe(depths[target[i]!]!);
  const kernelHoles = memory.words(holes.length);
  kernelHoles.set(holes);
  return {
    level: { ...level, pixels },
    source,
    sources: Int32Array.from(sources.filter((_, i) => i % step === 0)),
    number,
    target,
    match: memory.words(count),
    distance: memory.words(count),
    trust,
    holes: kernelHoles,
    kernel: memory.kernel,
    scratch: memory.words(SCRATCH),
  };
}

/** Pixels where a mask is set, in reading order. */
export function pixelsOf(mask: Uint8Array): number[] {
  const pixels: number[] = [];
  for (let p = 0; p < mask.length; p++) if (mask[p]) pixels.push(p);
  return pixels;
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
