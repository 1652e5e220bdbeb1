import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { LANES } from '../solve/levels.js';
import { solveSystem } from '../solve/multigrid.js';
import type { System } from '../solve/system.js';
import { cellsOf, laplacian } from '../solve/system.js';
import { layOver } from './blend.js';
import type { Border } from './border.js';
import { borderOf } from './border.js';
import { smoothSteps } from './border-steps.js';
import type { DonorInput } from './clone.js';
import { coverageWithDonor } from './clone.js';
import type { ToneFit, ToneMatch } from './tone-match.js';
import { believeFit, matchTone } from './tone-match.js';

/** Options of {@link graft}. */
export interface GraftOptions {
  /**
   * 'held': the tone is matched robustly and edges that run through the border do not pull at the site.
   * 'plain': the site meets the picture at every border pixel, whatever stands there. @default 'held'
   */
  border?: 'held' | 'plain';
  /** Relative residual the solve stops at. @default 1e-3 for 8-bit samples, 1e-7 for deeper ones */
  tolerance?: number;
}

/** What is added to gain * donor + bias + slopes, on the samples' own scale. */
interface Pull {
  readonly fit: ToneFit | null;
  /** Weight of every border pair. */
  readonly weight: (pair: number) => number;
  /** Step to be taken at a pair, 8-bit codes. */
  readonly step: (pair: number, channel: number) => number;
}

/** The donor's tone, unchanged. */
const AS_IT_IS: ToneMatch = {
  gain: [1, 1, 1],
  bias: [0, 0, 0],
  slopeX: [0, 0, 0],
  slopeY: [0, 0, 0],
};

/** Least that a border pair counts: an island whose whole border is an edge still has an answer. */
const LEAST_WEIGHT = 1e-4;

/**
 * Donor's texture with the surroundings' tone. Plain: Perez, Gangnet, Blake, "Poisson Image Editing", SIGGRAPH
 * 2003: the site takes the donor's gradients and meets the ring; the correction to the donor is harmonic. Held:
 * the donor's tone is first matched to the surroundings ({@link matchTone}); only the steps that are left are
 * spread harmonically, by border pairs that do not lie across an edge. That holds the other side's tone back, as
 * Georgiev's covariant cloning (ECCV 2004 workshop) and the border of Jia et al., "Drag-and-Drop Pasting",
 * SIGGRAPH 2006, do by other means. Where the picture ends, the boundary is natural. Alpha is left alone.
 * @param strength 0..1
 */
export function graft(input: DonorInput, strength: number, options: GraftOptions = {}): Raster {
  const { below, donor } = input;
  const { width, height, channels } = below;
  const coverage = coverageWithDonor(input);
  const site = new Uint8Array(coverage.length);
  for (let p = 0; p < coverage.length; p++) if (coverage[p]! > 0) site[p] = 1;
  const border = borderOf(input, site);
  const meets = border.outside.some((q) => input.valid[q]);
  const pull =
    options.border === 'plain' ? plainPull(border) : heldPull(border, meets, width, height);
  const system = laplacian(site, width, height);
  const deep = whiteOf(below.data) !== 255;
  const b = tie(system, border, pull, deep);
  const { x: correction } = solveSystem(system, b, {
    tolerance: options.tolerance ?? (deep ? 1e-7 : 1e-3),
  });

  const scale = whiteOf(below.data) / 255;
  const colours = colourChannels(channels);
  const colour = deep ? Float64Array.from(donor.data) : Float32Array.from(donor.data);
  const match = pull.fit?.match ?? AS_IT_IS;
  for (let y = 0, p = 0, cell = 0; y < height; y++) {
    const v = (2 * y) / Math.max(1, height - 1) - 1;
    for (let x = 0; x < width; x++, p++) {
      if (site[p] !== 1) continue;
      cell += LANES;
      const u = (2 * x) / Math.max(1, width - 1) - 1;
      for (let c = 0; c < colours; c++) {
        const i = p * channels + c;
        const tone = match.bias[c]! + match.slopeX[c]! * u + match.slopeY[c]! * v;
        colour[i] = match.gain[c]! * colour[i]! + scale * (tone + correction[cell + c]!);
      }
    }
  }
  return layOver(below, { data: colour }, coverage, strength);
}

function plainPull({ picture, donor }: Border): Pull {
  return {
    fit: null,
    weight: () => 1,
    step: (k, c) => picture[3 * k + c]! - donor[3 * k + c]!,
  };
}

/** @param meets whether the donor goes on beyond the border: then the site can meet the ring pixel by pixel */
function heldPull(border: Border, meets: boolean, width: number, height: number): Pull {
  const found = matchTone(border, width, height);
  const fit = meets ? found : believeFit(border, found);
  const steps = meets ? fit.rest : smoothSteps(border, fit, width, height);
  return {
    fit,
    weight: (k) => Math.max(LEAST_WEIGHT, fit.trust[k]!),
    step: (k, c) => (fit.trust[k]! > 0 ? steps[3 * k + c]! : 0),
  };
}

/** Ties the system to the border and gives its right-hand sides. */
function tie(
  system: System,
  border: Border,
  { weight, step }: Pull,
  deep: boolean,
): Float32Array | Float64Array {
  const length = LANES * system.cells;
  const b = deep ? new Float64Array(length) : new Float32Array(length);
  system.own.fill(0);
  const cells = cellsOf(system);
  for (let k = 0; k < border.count; k++) {
    const cell = cells[border.inside[k]!]!;
    const w = weight(k);
    system.own[cell]! += w;
    for (let c = 0; c < 3; c++) b[LANES * cell + c]! += w * step(k, c);
  }
  return b;
}
