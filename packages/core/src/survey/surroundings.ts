import type { Plane } from '../raster/plane.js';
import { boxMean } from '../raster/plane.js';

/** Side of the blocks surroundings are told by, px: they are wide, and change little from px to px. */
const BLOCK = 4;
/** Blocks to either side that count as a place's surroundings; and the side of the square they make, px. */
const REACH = 4;
export const AROUND = (2 * REACH + 1) * BLOCK;

/** Sums over blocks of a plane, to become means over the surroundings of its pixels. */
export class Surroundings {
  private readonly sums: Plane;

  constructor(private readonly frame: { readonly width: number; readonly height: number }) {
    const [width, height] = [Math.ceil(frame.width / BLOCK), Math.ceil(frame.height / BLOCK)];
    this.sums = { width, height, values: new Float32Array(width * height) };
  }

  /** Counts a pixel. */
  count(x: number, y: number): void {
    const { width, values } = this.sums;
    values[((y / BLOCK) | 0) * width + ((x / BLOCK) | 0)]!++;
  }

  /** Counts by how much the pixels of two planes differ. */
  countDifferences(a: Plane, b: Plane): void {
    const { width } = this.sums;
    for (let y = 0; y < this.frame.height; y++) {
      const row = ((y / BLOCK) | 0) * width;
      const from = y * this.frame.width;
      addDifferences(
        a.values.subarray(from, from + this.frame.width),
        b.values.subarray(from, from + this.frame.width),
        this.sums.values.subarray(row, row + width),
      );
    }
  }

  /** @returns the mean of what has been counted over the surroundings of a pixel */
  means(): (x: number, y: number) => number {
    const { width, height, values } = this.sums;
    const shares = Float32Array.from(values, (sum, k) => {
      const across = Math.min(BLOCK, this.frame.width - (k % width) * BLOCK);
      const down = Math.min(BLOCK, this.frame.height - Math.floor(k / width) * BLOCK);
      return sum / (across * down);
    });
    const means = boxMean({ width, height, values: shares }, REACH).values;
    return (x, y) => means[((y / BLOCK) | 0) * width + ((x / BLOCK) | 0)]!;
  }
}

function addDifferences(a: Float32Array, b: Float32Array, sums: Float32Array): void {
  for (let x = 0; x < a.length; x++) sums[(x / BLOCK) | 0]! += Math.abs(a[x]! - b[x]!);
}
