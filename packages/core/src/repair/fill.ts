import type { DonorMap } from '../fill/donor-map.js';
import { NOT_FILLED } from '../fill/donor-map.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { createSolver } from '../solve/multigrid.js';
import { laplacian, neighbourPixel } from '../solve/system.js';
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

/**
 * Replays a fill: copies every pixel from the source its donor map names and evens the tone across seams and
 * at the ring in the gradient domain (Perez et al. 2003; Agarwala et al., "Interactive Digital
 * Photomontage", SIGGRAPH 2004: gradients of the sources, averaged where two sources meet).
 * @param strength 0..1
 */
export function fill(input: FillInput, strength: number, options: FillBlendOptions = {}): Raster {
  const { below, origin, map, coverage } = input;
  const { width, height, channels, data } = below;
  const from = sourcesInWindow(map, origin, below);
  const site = Uint8Array.from(from, (s) => (s >= 0 ? 1 : 0));
  const system = laplacian(site, width, height);
  const pixels = new Int32Array(system.size);
  for (let i = 0; i < system.size; i++) pixels[i] = system.row[i]! * width + system.column[i]!;
  const adapt = options.adapt ?? 1;
  // Screening ties the result to the copied tone; adapt 1 leaves only what keeps large sites from drifting.
  const tie = adapt >= 1 ? 1e-4 : (1 - adapt) / Math.max(adapt, 1e-3);
  for (let i = 0; i < system.size; i++) system.own[i]! += tie;
  const solver = createSolver(system, { tolerance: whiteOf(data) === 255 ? 1e-5 : 1e-7 });

  const colour = Float64Array.from(data);
  const b = new Float64Array(system.size);
  const x = new Float64Array(system.size);
  for (let c = 0; c < colourChannels(channels); c++) {
    const at = (p: number): number => data[p * channels + c]!;
    for (let i = 0; i < pixels.length; i++) {
      const p = pixels[i]!;
      b[i] = tie * at(from[p]!) + wantedSteps(p, at);
      x[i] = at(from[p]!);
    }
    solver.solve(b, x);
    for (let i = 0; i < pixels.length; i++) colour[pixels[i]! * channels + c] = x[i]!;
  }
  const covered = coverage.map((value, p) => (site[p] ? value : 0));
  return layOver(below, { data: colour }, covered, strength);

  /** Sum over the neighbours of the step the sources want, plus the ring's own values. */
  function wantedSteps(p: number, at: (p: number) => number): number {
    const px = p % width;
    const py = (p / width) | 0;
    const s = from[p]!;
    const sx = s % width;
    const sy = (s / width) | 0;
    let sum = 0;
    for (let side = 0; side < 4; side++) {
      const q = neighbourPixel(p, px, py, width, height, side);
      if (q < 0) continue;
      const mine = neighbourPixel(s, sx, sy, width, height, side);
      const mineKnown = mine >= 0 && !site[mine];
      if (!site[q]) {
        sum += at(q) + (mineKnown ? at(s) - at(mine) : 0);
        continue;
      }
      const t = from[q]!;
      if (t === mine) {
        sum += at(s) - at(t);
        continue;
      }
      const theirs = neighbourPixel(t, t % width, (t / width) | 0, width, height, side ^ 1);
      const theirsKnown = theirs >= 0 && !site[theirs];
      const a = at(s) - (mineKnown ? at(mine) : at(t));
      const d = (theirsKnown ? at(theirs) : at(s)) - at(t);
      sum += (a + d) / 2;
    }
    return sum;
  }
}

function sourcesInWindow(map: DonorMap, origin: Rect, window: Raster): Int32Array {
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
