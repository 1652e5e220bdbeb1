import type { PointMap } from '../raster/resample.js';

/** px between which a map is taken to be straight: what it bends by there is under 0.002 px for the lenses that frames are taken with. */
const STEP = 4;

/**
 * A map along a row of the canvas, exact at every fourth pixel and straight between.
 * @param out x and y of every pixel's place, in turn; as many pixels as it holds
 */
export function mapAlong(to: PointMap, x: number, y: number, out: Float64Array): void {
  const n = out.length / 2;
  const at = new Float64Array(2);
  to(x, y, at);
  let [fromX, fromY] = [at[0]!, at[1]!];
  for (let k = 0; k < n; k += STEP) {
    to(x + k + STEP, y, at);
    const [toX, toY] = [at[0]!, at[1]!];
    const [dx, dy] = [(toX - fromX) / STEP, (toY - fromY) / STEP];
    const end = Math.min(n, k + STEP);
    for (let i = k, t = 0; i < end; i++, t++) {
      out[2 * i] = fromX + t * dx;
      out[2 * i + 1] = fromY + t * dy;
    }
    [fromX, fromY] = [toX, toY];
  }
}
