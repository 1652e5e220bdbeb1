import { ciede2000 } from '../colour/ciede2000.js';
import type { Lab } from '../colour/lab.js';
import { labOfSrgb } from '../colour/lab.js';
import type { Layer } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import type { Stain } from './stains.js';

/** Shares of the picture's breadth a fold's shadow takes; in how many strips it is followed, and in how many it must be there. */
const FOLD = { least: 0.015, most: 0.09, strips: 24, through: 0.9 } as const;
/** How much of a middle grey it takes, levels: more is no shadow on a print but something dark in the picture. */
const DEPTH = { least: 5, most: 36 } as const;
/** How much of it has gone where it has faded, and how much of it is there at once where the paper breaks. */
const GONE = 0.5;
const AT_ONCE = 0.7;

/** From and to, in halves of a shadow's breadth from a place on. */
type Span = readonly [from: number, to: number];

/**
 * Where a shadow is darkest, which places beside it are lighter all along it, how far it reaches; and where it has faded and
 * which way it does, where it begins at once.
 */
interface Shape {
  readonly core: Span;
  readonly beside: readonly Span[];
  readonly faded: Span | null;
  readonly way: 1 | -1;
  readonly band: Span;
}

/** Soft to both sides; or it begins at the fold itself, where the paper breaks, and fades to one side. */
const SOFT: Shape = {
  core: [-0.5, 0.5],
  beside: [
    [-3, -2],
    [2, 3],
  ],
  faded: null,
  way: 1,
  band: [-1, 1],
};
const BROKEN: Shape = { core: [0, 1], beside: [[-1.4, -0.4]], faded: [4, 5], way: 1, band: [0, 3] };
const SHAPES = [SOFT, BROKEN, turned(BROKEN)];

function turned({ core, beside, faded, way, band }: Shape): Shape {
  const back = ([from, to]: Span): Span => [-to, -from];
  return {
    core: back(core),
    beside: beside.map(back),
    faded: faded && back(faded),
    way: way === 1 ? -1 : 1,
    band: back(band),
  };
}

/** Dark bands that run right through a picture, side to side or top to bottom: the shadows of folds. */
export function foldsOf({ grey }: Layer): Stain[] {
  return [bandOf(grey, false), bandOf(grey, true)].filter((s): s is Stain => s !== null);
}

/** The deepest band of a picture. @param across whether it runs side to side */
function bandOf(plane: Plane, across: boolean): Stain | null {
  const { width, height } = plane;
  const [n, m] = across ? [height, width] : [width, height];
  const strips = stripSums(plane, across);
  let best = { dip: 0, from: 0, to: 0, through: 0 };
  for (
    let half = Math.ceil((FOLD.least * n) / 2);
    half <= (FOLD.most * n) / 2;
    half = Math.ceil(half * 1.3)
  )
    for (const shape of SHAPES) {
      const ends = [shape.core, ...shape.beside, shape.faded ?? shape.core].flat();
      const last = n - 1 - Math.ceil(Math.max(...ends) * half);
      for (let i = Math.ceil(-Math.min(...ends) * half); i <= last; i++) {
        const { dip, through } = dipAt(strips, i, half, shape);
        if (dip > best.dip && through >= FOLD.through)
          best = { dip, from: i + shape.band[0] * half, to: i + shape.band[1] * half, through };
      }
    }
  // What it takes of a middle grey.
  const levels = 128 * best.dip;
  if (levels < DEPTH.least || levels > DEPTH.most) return null;
  const pixels: number[] = [];
  for (let j = 0; j < m; j++)
    for (let i = Math.max(0, best.from); i <= Math.min(n - 1, best.to); i++)
      pixels.push(across ? i * width + j : j * width + i);
  return {
    pixels: Int32Array.from(pixels).sort(),
    odds: Math.log(levels / 14) + 20 * (best.through - 0.97),
    polarity: -1,
    contrast: ciede2000(greyOf(128 - levels), greyOf(128)),
  };
}

/** How deep strips dip at a place, in the middle, and the share of them that do. */
function dipAt(
  strips: readonly Float64Array[],
  i: number,
  half: number,
  { core, beside, faded, way }: Shape,
): { dip: number; through: number } {
  const over = (sums: Float64Array, [from, to]: Span): number => {
    const [a, b] = [Math.round(i + from * half), Math.round(i + to * half)];
    return (sums[b + 1]! - sums[a]!) / (b + 1 - a);
  };
  const own = strips.map((sums) => over(sums, core));
  const dips = strips.map(
    (sums, k) => Math.min(...beside.map((span) => over(sums, span))) - own[k]!,
  );
  const dip = medianOf(dips);
  if (faded) {
    // Where it fades what is drawn there may change as well: in the middle of the strips it has gone.
    const gone = medianOf(strips.map((sums, k) => over(sums, faded) - own[k]!));
    const step = medianOf(strips.map((sums) => toneAt(sums, i - 2 * way) - toneAt(sums, i + way)));
    if (gone < GONE * dip || step < AT_ONCE * dip) return { dip: 0, through: 0 };
  }
  return { dip, through: dips.filter((d) => d > 0.4 * dip).length / dips.length };
}

function toneAt(sums: Float64Array, i: number): number {
  return (sums[i + 1] ?? 0) - (sums[i] ?? 0);
}

/** Running sums of the mean logarithm of tone along a picture, in strips beside each other. */
function stripSums({ width, height, values }: Plane, across: boolean): Float64Array[] {
  const [n, m] = across ? [height, width] : [width, height];
  return Array.from({ length: FOLD.strips }, (_, s) => {
    const [from, to] = [Math.floor((s * m) / FOLD.strips), Math.floor(((s + 1) * m) / FOLD.strips)];
    const sums = new Float64Array(n + 1);
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let j = from; j < to; j++)
        sum += Math.log((across ? values[i * width + j]! : values[j * width + i]!) + 8);
      sums[i + 1] = sums[i]! + sum / Math.max(1, to - from);
    }
    return sums;
  });
}

function greyOf(level: number): Lab {
  return labOfSrgb(level / 255, level / 255, level / 255);
}
