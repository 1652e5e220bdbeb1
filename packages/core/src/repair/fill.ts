import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { LANES } from '../solve/levels.js';
import { solveSystem } from '../solve/multigrid.js';
import { cellOf, laplacian, residualOf } from '../solve/system.js';
import { layOver } from './blend.js';

/** What replaying a fill works on. */
export interface FillInput {
  /** The picture below the repair: the site, one pixel around it, and every source of the map. */
  readonly below: Raster;
  /** Where that window lies in the original's coordinates. */
  readonly origin: Rect;
  readonly map: DonorMap;
  /** Coverage of the site, 0..1, one value a pixel of the window. */
  readonly coverage: Float32Array;
}

/** Options of {@link fill}. */
export interface FillBlendOptions {
  /**
   * Tone adaptation 0..1: 0 leaves the copied tone as it is, 1 follows the surroundings wholly.
   * @default 1
   */
  adapt?: number;
}

/** What each site pixel copies, as pixels of the window: one entry an unknown. */
interface Sources {
  readonly pixel: Int32Array;
  readonly from: Int32Array;
  /** Per side (right, left, below, above): the pixels whose difference is the wanted step, -1 for none. */
  readonly steps: Int32Array;
}

/** Keeps large sites from drifting where hardly anything ties them to their ring. */
const LEAST_TIE = 1e-4;

/**
 * Replays a fill: copies every pixel from the source its donor map names and evens the tone across seams and
 * at the ring in the gradient domain (Perez et al. 2003; Agarwala et al., "Interactive Digital
 * Photomontage", SIGGRAPH 2004: gradients of the sources, averaged where two sources meet).
 * @param strength 0..1
 */
export function fill(input: FillInput, strength: number, options: FillBlendOptions = {}): Raster {
  const { below, origin, map, coverage } = input;
  const { channels, data } = below;
  // The solve needs the site and its ring only, however far the sources lie.
  const box = {
    x: map.rect.x - origin.x - 1,
    y: map.rect.y - origin.y - 1,
    width: map.rect.width + 2,
    height: map.rect.height + 2,
  };
  const x0 = Math.max(0, box.x);
  const y0 = Math.max(0, box.y);
  const width = Math.min(below.width, box.x + box.width) - x0;
  const height = Math.min(below.height, box.y + box.height) - y0;

  const site = siteOf(map, origin, below);
  const mask = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      mask[y * width + x] = site[(y0 + y) * below.width + x0 + x]! >= 0 ? 1 : 0;
  const system = laplacian(mask, width, height);
  const unknowns: number[] = [];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (mask[y * width + x]) unknowns.push(cellOf(system.stride, x, y));
  const cellPixel = (i: number): number =>
    (Math.floor(i / system.stride) - 1 + y0) * below.width + (i % system.stride) - 1 + x0;

  const sources = sourcesOf(unknowns.map(cellPixel), site, below);
  const adapt = options.adapt ?? 1;
  const tie = Math.max(LEAST_TIE, adapt >= 1 ? 0 : (1 - adapt) / Math.max(adapt, 1e-3));
  for (const i of unknowns) system.own[i]! += tie;

  // What is solved for is the correction to the copied tone.
  const colours = colourChannels(channels);
  const deep = whiteOf(data) !== 255;
  const room = (length: number) => (deep ? new Float64Array(length) : new Float32Array(length));
  const b = room(LANES * system.cells);
  const copied = room(LANES * system.cells);
  for (let k = 0; k < unknowns.length; k++) {
    for (let c = 0; c < colours; c++) {
      const tone = (copied[LANES * unknowns[k]! + c] = data[sources.from[k]! * channels + c]!);
      b[LANES * unknowns[k]! + c] = tie * tone + wantedSteps(sources.steps, k, data, channels, c);
    }
  }
  const rest = room(b.length);
  residualOf(system, b, copied, rest);
  const { x: correction } = solveSystem(system, rest, {
    tolerance: deep ? 1e-7 : 1e-3,
  });
  const colour = room(data.length);
  colour.set(data);
  for (let k = 0; k < unknowns.length; k++) {
    const cell = LANES * unknowns[k]!;
    for (let c = 0; c < colours; c++)
      colour[sources.pixel[k]! * channels + c] = copied[cell + c]! + correction[cell + c]!;
  }
  const covered = new Float32Array(coverage.length);
  for (let p = 0; p < covered.length; p++) if (site[p]! >= 0) covered[p] = coverage[p]!;
  return layOver(below, { data: colour }, covered, strength);
}

/** A side: a known ring pixel whose value counts, then two pairs whose differences are averaged. */
const PER_SIDE = 5;

function wantedSteps(
  steps: Int32Array,
  k: number,
  data: Raster['data'],
  channels: number,
  c: number,
): number {
  let sum = 0;
  for (let at = k * 4 * PER_SIDE, end = at + 4 * PER_SIDE; at < end; at += PER_SIDE) {
    const ring = steps[at]!;
    if (ring === -2) continue;
    if (ring >= 0) sum += data[ring * channels + c]!;
    const a0 = steps[at + 1]!;
    if (a0 < 0) continue;
    const a = data[a0 * channels + c]! - data[steps[at + 2]! * channels + c]!;
    const d0 = steps[at + 3]!;
    sum += d0 < 0 ? a : (a + data[d0 * channels + c]! - data[steps[at + 4]! * channels + c]!) / 2;
  }
  return sum;
}

function sourcesOf(
  pixels: readonly number[],
  site: Int32Array,
  { width, height }: Raster,
): Sources {
  const steps = new Int32Array(pixels.length * 4 * PER_SIDE).fill(-1);
  const from = new Int32Array(pixels.length);
  const beside = (p: number, side: number): number => {
    const x = p % width;
    if (side === 0) return x + 1 < width ? p + 1 : -1;
    if (side === 1) return x > 0 ? p - 1 : -1;
    if (side === 2) return p + width < width * height ? p + width : -1;
    return p - width;
  };
  const known = (p: number): boolean => p >= 0 && site[p]! < 0;
  pixels.forEach((p, k) => {
    const s = (from[k] = site[p]!);
    for (let side = 0; side < 4; side++) {
      const at = (k * 4 + side) * PER_SIDE;
      const q = beside(p, side);
      if (q < 0) {
        steps[at] = -2;
        continue;
      }
      const mine = beside(s, side);
      if (site[q]! < 0) {
        steps[at] = q;
        if (known(mine)) steps.set([s, mine], at + 1);
        continue;
      }
      const t = site[q]!;
      steps.set([s, known(mine) ? mine : t], at + 1);
      if (t === mine) continue;
      const theirs = beside(t, side ^ 1);
      steps.set([known(theirs) ? theirs : s, t], at + 3);
    }
  });
  return { pixel: Int32Array.from(pixels), from, steps };
}

/** For every window pixel the pixel it is copied from, -1 outside the site. */
function siteOf(map: DonorMap, origin: Rect, window: Raster): Int32Array {
  const from = new Int32Array(window.width * window.height).fill(-1);
  const { rect, dx, dy } = map;
  for (let y = 0, i = 0; y < rect.height; y++) {
    for (let x = 0; x < rect.width; x++, i++) {
      if (dx[i] === NOT_FILLED) continue;
      const px = rect.x + x - origin.x;
      const py = rect.y + y - origin.y;
      const sx = px + dx[i]!;
      const sy = py + dy[i]!;
      if (px < 0 || py < 0 || px >= window.width || py >= window.height) continue;
      if (sx < 0 || sy < 0 || sx >= window.width || sy >= window.height)
        throw new RangeError('donor map reaches outside its window');
      from[py * window.width + px] = sy * window.width + sx;
    }
  }
  return from;
}
