/** Grey values, and a mask whose pixels are unknown, a value a pixel each. */
export interface Ground {
  readonly grey: Float32Array;
  /** 1 = unknown. */
  readonly hole: Uint8Array;
  readonly width: number;
}

/** Structure tensor at a pixel (Forstner and Gulch 1987): sums of the products of slopes in the square round it; what reads the unknown does not count. */
export function tensorPlainly(
  { grey, hole, width }: Ground,
  pixel: number,
  half: number,
): [xx: number, yy: number, xy: number] {
  let [xx, yy, xy] = [0, 0, 0];
  for (let v = 1 - half; v < half; v++)
    for (let u = 1 - half; u < half; u++) {
      const p = pixel + v * width + u;
      if (hole[p] || hole[p + 1] || hole[p - 1] || hole[p + width] || hole[p - width]) continue;
      const gx = (grey[p + 1]! - grey[p - 1]!) / 2;
      const gy = (grey[p + width]! - grey[p - width]!) / 2;
      xx += gx * gx;
      yy += gy * gy;
      xy += gx * gy;
    }
  return [xx, yy, xy];
}
