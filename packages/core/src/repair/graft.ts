import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { createSolver } from '../solve/multigrid.js';
import { laplacian } from '../solve/system.js';
import { layOver } from './blend.js';
import type { DonorInput } from './clone.js';
import { coverageWithDonor } from './clone.js';

/** Options of {@link graft}. */
export interface GraftOptions {
  /** Relative residual the solve stops at. @default 1e-3 for 8-bit samples, 1e-7 for deeper ones */
  tolerance?: number;
}

/**
 * Donor's texture with the surroundings' tone: the site takes the donor's gradients and meets the untouched
 * ring exactly. Perez, Gangnet, Blake, "Poisson Image Editing", SIGGRAPH 2003: the Poisson equation with
 * Dirichlet values on the ring, solved for the correction f - donor, which is harmonic. Where the picture
 * ends, the boundary is natural. Alpha is left alone.
 * @param strength 0..1
 */
export function graft(input: DonorInput, strength: number, options: GraftOptions = {}): Raster {
  const { below, donor, valid } = input;
  const { width, height, channels } = below;
  const coverage = coverageWithDonor(input);
  const site = new Uint8Array(coverage.length);
  for (let p = 0; p < coverage.length; p++) if (coverage[p]! > 0) site[p] = 1;
  const system = laplacian(site, width, height);
  const { stride, runs, cells } = system;
  const solver = createSolver(system, {
    tolerance: options.tolerance ?? (whiteOf(below.data) === 255 ? 1e-3 : 1e-7),
  });

  const colour = new Float64Array(donor.data.length);
  colour.set(donor.data);
  const b = new Float64Array(cells);
  const correction = new Float64Array(cells);
  for (let c = 0; c < colourChannels(channels); c++) {
    const difference = (p: number, q: number): number => {
      if (site[q]) return 0;
      // Where the ring has no donor, the donor's nearest pixel inside stands in for it.
      const from = valid[q] ? q : p;
      return below.data[q * channels + c]! - donor.data[from * channels + c]!;
    };
    eachUnknown((i, p, x, y) => {
      b[i] =
        (x + 1 < width ? difference(p, p + 1) : 0) +
        (x > 0 ? difference(p, p - 1) : 0) +
        (y + 1 < height ? difference(p, p + width) : 0) +
        (y > 0 ? difference(p, p - width) : 0);
    });
    // Channels are alike: the solution of the one before is a good first guess.
    solver.solve(b, correction);
    eachUnknown((i, p) => {
      colour[p * channels + c]! += correction[i]!;
    });
  }
  return layOver(below, { data: colour }, coverage, strength);

  /** Calls with the cell, the window pixel and its place. */
  function eachUnknown(act: (i: number, p: number, x: number, y: number) => void): void {
    for (let k = 0; k < runs.length; k += 2) {
      const y = Math.floor(runs[k]! / stride) - 1;
      const x0 = (runs[k]! % stride) - 1;
      const n = runs[k + 1]! - runs[k]!;
      for (let j = 0; j < n; j++) act(runs[k]! + j, y * width + x0 + j, x0 + j, y);
    }
  }
}
