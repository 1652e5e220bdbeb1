import type { Plane } from '../raster/plane.js';
import type { Smoothed } from './bands.js';
import { middleOf } from './middle.js';
import type { RimPoint, SiteWindow } from './site-window.js';

/** How far on either side of the border grain is read, and over a square of which half side, px. */
const OFF = 4;
const REACH = 2;
/** Fewest places of the border that say something. */
const LEAST = 12;
/** px along the border that hardly say anything new about each other. */
const ALIKE = 4;
/** Standard errors a step must be, and what no step's spread is taken to be below. */
const SURE = 2.25;
const SPREAD = 0.15;
/** Codes that keep the logarithm of nothing within bounds. */
const FLOOR = 0.1;
/** Variance, in units of the coarser detail's logarithm squared, that the slope is held back by. */
const HELD = 0.05;

/** Logarithms of how lively detail is inside less outside, at one place of the border. */
interface Pair {
  readonly fine: number;
  readonly coarse: number;
}

/**
 * Step of grain across a site's border: at each place the finest band inside beside that outside, less what the coarser
 * bands' difference there lets expect, told by the border's own places. What is drawn crosses the border and cancels.
 * @param layers of the window's luma @returns ratio of amplitudes, 1 when it is no further from it than chance
 */
export function grainStep({ luma, rim, mask, changed }: SiteWindow, layers: Smoothed): number {
  const { width, height } = luma;
  const [values, once, , thrice] = layers;
  const fine = { from: values, to: once };
  const coarse = { from: once, to: thrice };
  const pairs: Pair[] = [];
  for (const point of rim) {
    const [inner, outer] = [placeAt(luma, point, -OFF), placeAt(luma, point, OFF)];
    // A narrow site has nothing inside so far from its border, and beside another repair nothing is known.
    if (inner < 0 || outer < 0 || !mask[inner] || changed[outer]) continue;
    const ratio = (band: Band): number =>
      Math.log(
        (liveliness(band, inner, width, height) + FLOOR) /
          (liveliness(band, outer, width, height) + FLOOR),
      );
    pairs.push({ fine: ratio(fine), coarse: ratio(coarse) });
  }
  if (pairs.length < LEAST) return 1;
  const slope = slopeOf(pairs);
  const steps = pairs.map((pair) => pair.fine - slope * pair.coarse);
  const { value, doubt } = middleOf(
    steps,
    steps.map(() => 1),
    ALIKE,
    SPREAD,
  );
  return Math.abs(value) > SURE * doubt ? Math.exp(value) : 1;
}

/** What one smoothing, or several, took away. */
interface Band {
  readonly from: Float32Array;
  readonly to: Float32Array;
}

/** Mean size of a band round a pixel. */
function liveliness({ from, to }: Band, p: number, width: number, height: number): number {
  const [x, y] = [p % width, Math.floor(p / width)];
  const [left, right] = [Math.max(0, x - REACH), Math.min(width - 1, x + REACH)];
  const [top, bottom] = [Math.max(0, y - REACH), Math.min(height - 1, y + REACH)];
  let sum = 0;
  for (let v = top; v <= bottom; v++)
    for (let q = v * width + left, end = v * width + right; q <= end; q++)
      sum += Math.abs(from[q]! - to[q]!);
  return sum / ((right - left + 1) * (bottom - top + 1));
}

/** Pixel so far out from a place of the border; -1 outside of the window. */
function placeAt({ width, height }: Plane, { x, y, nx, ny }: RimPoint, off: number): number {
  const [u, v] = [Math.round(x + off * nx), Math.round(y + off * ny)];
  return u < 0 || v < 0 || u >= width || v >= height ? -1 : v * width + u;
}

/** Least squares, held back a little, so that few places do not tell much. */
function slopeOf(pairs: readonly Pair[]): number {
  const n = pairs.length;
  const fine = pairs.reduce((sum, pair) => sum + pair.fine, 0) / n;
  const coarse = pairs.reduce((sum, pair) => sum + pair.coarse, 0) / n;
  let [moment, square] = [0, HELD * n];
  for (const pair of pairs) {
    moment += (pair.fine - fine) * (pair.coarse - coarse);
    square += (pair.coarse - coarse) ** 2;
  }
  return moment / square;
}
