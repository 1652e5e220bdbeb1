/** Functions of kernels/shape.ts. Addresses in bytes. */
export interface ShapeKernel {
  /** @returns the greatest depth that has an end, px */
  measure(mask: number, thirds: number, width: number, height: number): number;
  depths(thirds: number, count: number, depth: number): void;
  deepestIn(thirds: number, width: number, height: number, side: number, deepest: number): void;
  /** @returns how many runs there are, five words each: of the first one of a part its box, and itself */
  parts(mask: number, width: number, height: number, runs: number): number;
}
