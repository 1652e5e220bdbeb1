/** Functions of kernels/shape.ts. Addresses in bytes. */
export interface ShapeKernel {
  /** @returns the greatest depth that has an end */
  depths(mask: number, depth: number, width: number, height: number): number;
  deepestIn(depth: number, width: number, height: number, side: number, deepest: number): void;
  tensors(
    grey: number,
    mask: number,
    width: number,
    pixels: number,
    count: number,
    half: number,
    sums: number,
  ): void;
}
