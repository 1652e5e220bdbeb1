import { greyOf } from '../raster/grey.js';
import type { Raster } from '../raster/raster.js';
import { BLOCK, dct } from './dct.js';
import { stepsAt } from './quantization.js';

/** Blocks that a compression with losses left in a picture. */
export interface BlockFacts {
  /** Where the grid begins, px, 0..7: other than 0 where the picture was cropped since. */
  readonly x: number;
  readonly y: number;
  /** Quality it was compressed at, 1..100, by the standard's example tables. */
  readonly quality: number;
  /** By how much more the picture steps across the grid's lines than elsewhere, codes. */
  readonly steps: number;
}

/** Steps across the grid from which on it shows, codes. */
const SHOWN = 0.1;
/** Above this quality there is nothing to reduce. */
const FINE = 95;
const QUALITIES = Array.from({ length: 89 }, (_, k) => 10 + k);
/** Blocks that are looked at, about. */
const ASKED = 1200;
/** Coefficients that tell the steps: the lowest ones, the mean left out; row and column below 4. */
const TELLING = Array.from({ length: 15 }, (_, k) => ((k + 1) >> 2) * BLOCK + ((k + 1) & 3));
/** Deviation of a coefficient from its step's multiple: rounding to codes, and to another colour space. */
const ROUNDING = 0.6;
/** Share of coefficients that lie anywhere: clipped whites, and what was done since. */
const STRAY = 0.02;
/** Mean gain in likelihood, logarithms, from which on a quality is believed. */
const BELIEVED = 0.3;

/**
 * Whether a picture shows the blocks of a compression with losses, and how strong that was: the grid by the steps across its
 * lines; the quality by the multiples on which coefficients lie (after Fan and de Queiroz, "Identification of Bitmap
 * Compression History", IEEE Trans. Image Processing 12(2), 2003).
 * @returns null where there are none that would show
 */
export function blocksIn(picture: Raster): BlockFacts | null {
  const { width, height } = picture;
  if (width < 8 * BLOCK || height < 8 * BLOCK) return null;
  const grey = greyOf(picture);
  const across = phaseOf(stepSums(grey, width, height, 1));
  const down = phaseOf(stepSums(grey, width, height, width));
  const steps = (across.stands + down.stands) / 2;
  const quality = qualityAt(grey, width, height, across.phase, down.phase);
  if (quality === null || quality > FINE || steps < SHOWN) return null;
  return { x: across.phase, y: down.phase, quality, steps };
}

/** By how much more neighbours differ than their own neighbours do, by where in eight the border between them lies. */
function stepSums(grey: Float32Array, width: number, height: number, step: number): number[] {
  const sums = new Array<number>(BLOCK).fill(0);
  const counts = new Array<number>(BLOCK).fill(0);
  const every = Math.max(1, Math.floor(Math.sqrt((width * height) / 1e6)));
  const [along, length] = step === 1 ? [height, width] : [width, height];
  for (let line = 0; line < along; line += every)
    for (let k = 2; k < length - 1; k++) {
      const p = step === 1 ? line * width + k : k * width + line;
      const jump = Math.abs(grey[p]! - grey[p - step]!);
      const slope =
        Math.abs(grey[p + step]! - grey[p]!) + Math.abs(grey[p - step]! - grey[p - 2 * step]!);
      sums[k % BLOCK]! += jump - slope / 2;
      counts[k % BLOCK]! += 1;
    }
  return sums.map((sum, k) => sum / Math.max(1, counts[k]!));
}

function phaseOf(sums: readonly number[]): { phase: number; stands: number } {
  const phase = sums.indexOf(Math.max(...sums));
  const others = sums.filter((_, k) => k !== phase);
  const level = others.reduce((a, b) => a + b, 0) / others.length;
  return { phase, stands: sums[phase]! - level };
}

/** The quality at whose steps' multiples the coefficients lie most, or null where none tells. */
function qualityAt(
  grey: Float32Array,
  width: number,
  height: number,
  x: number,
  y: number,
): number | null {
  const [columns, rows] = [Math.floor((width - x) / BLOCK), Math.floor((height - y) / BLOCK)];
  const every = Math.max(1, Math.floor(Math.sqrt((columns * rows) / ASKED)));
  const block = new Float64Array(64);
  const told: number[][] = TELLING.map(() => []);
  for (let v = 0; v < rows; v += every)
    for (let u = 0; u < columns; u += every) {
      for (let j = 0; j < BLOCK; j++)
        for (let i = 0; i < BLOCK; i++)
          block[j * BLOCK + i] = grey[(y + v * BLOCK + j) * width + x + u * BLOCK + i]! - 128;
      dct(block);
      TELLING.forEach((at, k) => told[k]!.push(block[at]!));
    }
  let best = { quality: 0, gain: 0 };
  for (const quality of QUALITIES) {
    const steps = stepsAt(quality, 'luminance');
    let [gain, count] = [0, 0];
    TELLING.forEach((at, k) => {
      const step = steps[at]!;
      const width = (step / ROUNDING) * (1 / Math.sqrt(2 * Math.PI));
      for (const value of told[k]!) {
        const multiple = Math.round(value / step);
        // Zeros tell nothing: small values are common anyway.
        if (!multiple) continue;
        const off = (value - multiple * step) / ROUNDING;
        gain += Math.log((1 - STRAY) * width * Math.exp(-(off * off) / 2) + STRAY);
        count++;
      }
    });
    if (count && gain > best.gain && gain / count > BELIEVED) best = { quality, gain };
  }
  return best.quality || null;
}
