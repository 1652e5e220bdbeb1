import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { createSolver } from '../solve/multigrid.js';
import { laplacian, neighbourPixel } from '../solve/system.js';
import { layOver } from './blend.js';
import type { DonorInput } from './clone.js';
import { coverageWithDonor } from './clone.js';

/** Options of {@link graft}. */
export interface GraftOptions {
  /** Relative residual the solve stops at. @default 1e-5 for 8-bit samples, 1e-7 for deeper ones */
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
  const { below, donor } = input;
  const { width, height, channels } = below;
  const coverage = coverageWithDonor(input);
  const site = Uint8Array.from(coverage, (v) => (v > 0 ? 1 : 0));
  const system = laplacian(site, width, height);
  const pixels = new Int32Array(system.size);
  for (let i = 0; i < system.size; i++) pixels[i] = system.row[i]! * width + system.column[i]!;
  const solver = createSolver(system, {
    tolerance: options.tolerance ?? (whiteOf(below.data) === 255 ? 1e-5 : 1e-7),
  });

  const colour = Float64Array.from(donor.data);
  const b = new Float64Array(system.size);
  const correction = new Float64Array(system.size);
  for (let c = 0; c < colourChannels(channels); c++) {
    ringDifferences(input, site, pixels, c, b);
    correction.fill(0);
    solver.solve(b, correction);
    for (let i = 0; i < pixels.length; i++) colour[pixels[i]! * channels + c]! += correction[i]!;
  }
  return layOver(below, { data: colour }, coverage, strength);

  function ringDifferences(
    { valid }: DonorInput,
    unknown: Uint8Array,
    at: Int32Array,
    c: number,
    out: Float64Array,
  ): void {
    for (let i = 0; i < at.length; i++) {
      const p = at[i]!;
      let sum = 0;
      for (let side = 0; side < 4; side++) {
        const q = neighbourPixel(p, p % width, (p / width) | 0, width, height, side);
        if (q < 0 || unknown[q]) continue;
        // Where the ring has no donor, the donor's nearest pixel inside stands in for it.
        const from = valid[q] ? q : p;
        sum += below.data[q * channels + c]! - donor.data[from * channels + c]!;
      }
      out[i] = sum;
    }
  }
}
