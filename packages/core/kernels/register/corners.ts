// The smaller eigenvalue of the slopes' mean tensor.
import { float, putFloat } from './memory';

/** px on either side over which slopes are summed up. */
const AROUND: i32 = 2;

/**
 * @param sums three rows of floats for every part
 * @param out 0 near the border
 */
export function strength(
  plane: usize,
  width: i32,
  height: i32,
  sums: usize,
  out: usize,
  part: i32,
  from: i32,
  to: i32,
): void {
  const rows = sums + (<usize>(3 * part * width) << 2);
  const xx = rows;
  const xy = xx + (<usize>width << 2);
  const yy = xy + (<usize>width << 2);
  for (let y = max(from, AROUND + 1); y < min(to, height - AROUND - 1); y++) {
    for (let x = 1; x < width - 1; x++) {
      let a: f32 = 0;
      let b: f32 = 0;
      let c: f32 = 0;
      for (let v = y - AROUND; v <= y + AROUND; v++) {
        const p = v * width + x;
        const gx = float(plane, p + 1) - float(plane, p - 1);
        const gy = float(plane, p + width) - float(plane, p - width);
        a += gx * gx;
        b += gx * gy;
        c += gy * gy;
      }
      putFloat(xx, x, a);
      putFloat(xy, x, b);
      putFloat(yy, x, c);
    }
    for (let x = AROUND + 1; x < width - AROUND - 1; x++) {
      const a = five(xx, x);
      const b = five(xy, x);
      const c = five(yy, x);
      const half = (a - c) / 2;
      putFloat(out, y * width + x, ((a + c) / 2 - sqrt<f32>(half * half + b * b)) / 25);
    }
  }
}

@inline
function five(row: usize, x: i32): f32 {
  return (
    float(row, x) +
    (float(row, x - 1) + float(row, x + 1)) +
    (float(row, x - 2) + float(row, x + 2))
  );
}
