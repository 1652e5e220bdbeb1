import { ciede2000 } from '../colour/ciede2000.js';
import type { Lab } from '../colour/lab.js';
import { labOfSrgb } from '../colour/lab.js';
import { medianOf } from '../raster/median.js';
import type { Layer } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { piecesOf } from './pieces.js';
import { toneCurveOf } from './tone-curve.js';

/** A stain or a shadow along a fold, at the level it was found at. */
export interface Stain {
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
  /** CIEDE2000 between it and what the print would be there without it. */
  readonly contrast: number;
}

/** What a stain's colour differs by, CIELAB units, and its least and greatest share of the picture. */
const OFF = 5;
const SHARE = { least: 0.0008, most: 0.2 } as const;

/**
 * Stains on prints of one tone: where the colour leaves the curve that ties it to lightness everywhere else. Pictures in
 * colour tie nothing to anything, and get none.
 * @param layer small: about 400 px across
 */
export function stainsOf(layer: Layer): Stain[] {
  if (!layer.colours.length) return [];
  const { width, height } = layer.grey;
  const count = width * height;
  const { labs, at, stray, usual, oneTone } = toneCurveOf(layer);
  if (!oneTone) return [];
  const off = labs.map(stray);
  const mask = Uint8Array.from(off, (d) => (d > OFF * Math.max(0.5, usual) ** 0.5 ? 1 : 0));
  return piecesOf(mask, width)
    .filter(
      ({ pixels }) => pixels.length > SHARE.least * count && pixels.length < SHARE.most * count,
    )
    .map((piece): Stain => {
      const mean = piece.pixels.reduce((sum, p) => sum + off[p]!, 0) / piece.pixels.length;
      const box = (piece.right - piece.left + 1) * (piece.bottom - piece.top + 1);
      const filled = piece.pixels.length / box;
      return {
        pixels: piece.pixels,
        odds:
          2 * Math.log(mean / 8) +
          4 * (filled - 0.45) +
          Math.log(piece.pixels.length / count / 0.004) / 2,
        polarity: -1,
        contrast: ciede2000(
          meanLab(Array.from(piece.pixels, (p) => labs[p]!)),
          meanLab(Array.from(piece.pixels, (p) => ({ L: labs[p]!.L, ...at(labs[p]!) }))),
        ),
      };
    });
}

function meanLab(labs: readonly Lab[]): Lab {
  const mean = (of: (lab: Lab) => number): number =>
    labs.reduce((sum, lab) => sum + of(lab), 0) / labs.length;
  return { L: mean(({ L }) => L), a: mean(({ a }) => a), b: mean(({ b }) => b) };
}

/** Shares of the picture's breadth a fold's shadow takes, and how evenly it must run through. */
const FOLD = { least: 0.015, most: 0.09, strips: 24, through: 0.9, deep: 5 } as const;

/** Dark bands that run right through a picture, side to side or top to bottom: the shadows of folds. */
export function foldsOf({ grey }: Layer): Stain[] {
  return [bandOf(grey, false), bandOf(grey, true)].filter((s): s is Stain => s !== null);
}

function bandOf({ width, height, values }: Plane, across: boolean): Stain | null {
  const [n, m] = across ? [height, width] : [width, height];
  const at = (i: number, j: number): number =>
    across ? values[i * width + j]! : values[j * width + i]!;
  const strips = Array.from({ length: FOLD.strips }, (_, s) => {
    const [from, to] = [Math.floor((s * m) / FOLD.strips), Math.floor(((s + 1) * m) / FOLD.strips)];
    return Float32Array.from({ length: n }, (_, i) => {
      let sum = 0;
      for (let j = from; j < to; j++) sum += Math.log(at(i, j) + 8);
      return sum / (to - from);
    });
  });
  let best = { dip: 0, from: 0, to: 0, through: 0 };
  for (
    let half = Math.ceil((FOLD.least * n) / 2);
    half <= (FOLD.most * n) / 2;
    half = Math.ceil(half * 1.3)
  )
    for (let i = 3 * half; i < n - 3 * half; i++) {
      const dips = strips.map((strip) => {
        const mean = (a: number, b: number): number => {
          let sum = 0;
          for (let k = a; k <= b; k++) sum += strip[k]!;
          return sum / (b - a + 1);
        };
        return (
          Math.min(mean(i - 3 * half, i - 2 * half), mean(i + 2 * half, i + 3 * half)) -
          mean(i - (half >> 1), i + (half >> 1))
        );
      });
      const dip = medianOf(dips);
      const through = dips.filter((d) => d > 0.4 * dip).length / dips.length;
      if (dip > best.dip && through >= FOLD.through)
        best = { dip, from: i - half, to: i + half, through };
    }
  // What it takes of a middle grey.
  const levels = 128 * best.dip;
  if (levels < FOLD.deep) return null;
  const pixels: number[] = [];
  for (let j = 0; j < m; j++)
    for (let i = best.from; i <= best.to; i++) pixels.push(across ? i * width + j : j * width + i);
  return {
    pixels: Int32Array.from(pixels).sort(),
    odds: Math.log(levels / 14) + 20 * (best.through - 0.97),
    polarity: -1,
    contrast: ciede2000(greyOf(128 - levels), greyOf(128)),
  };
}

function greyOf(level: number): Lab {
  return labOfSrgb(level / 255, level / 255, level / 255);
}
