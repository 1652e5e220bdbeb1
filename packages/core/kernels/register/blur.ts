// Gaussian blur by seven taps, the border repeated outward.
import { float, floats, putFloat, putFloats } from './memory';

@inline
function tap(taps: usize, k: i32): v128 {
  return v128.load32_splat(taps + (<usize>k << 2));
}

/** Rows. @param taps four floats, the middle one first */
export function across(
  plane: usize,
  width: i32,
  taps: usize,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const a = float(taps, 0);
  const b = float(taps, 1);
  const c = float(taps, 2);
  const d = float(taps, 3);
  for (let y = from; y < to; y++) {
    const row = plane + (<usize>(y * width) << 2);
    const result = out + (<usize>(y * width) << 2);
    let x = 0;
    for (; x < width; x++) {
      if (x == 3)
        for (; x + 7 <= width; x += 4)
          putFloats(
            result,
            x,
            f32x4.add(
              f32x4.add(
                f32x4.mul(tap(taps, 0), floats(row, x)),
                f32x4.mul(tap(taps, 1), f32x4.add(floats(row, x - 1), floats(row, x + 1))),
              ),
              f32x4.add(
                f32x4.mul(tap(taps, 2), f32x4.add(floats(row, x - 2), floats(row, x + 2))),
                f32x4.mul(tap(taps, 3), f32x4.add(floats(row, x - 3), floats(row, x + 3))),
              ),
            ),
          );
      if (x >= width) break;
      const last = width - 1;
      const one = float(row, max(0, x - 1)) + float(row, min(last, x + 1));
      const two = float(row, max(0, x - 2)) + float(row, min(last, x + 2));
      const three = float(row, max(0, x - 3)) + float(row, min(last, x + 3));
      putFloat(result, x, a * float(row, x) + b * one + (c * two + d * three));
    }
  }
}

/** Columns. */
export function down(
  plane: usize,
  width: i32,
  height: i32,
  taps: usize,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const last = height - 1;
  const stride = <usize>width << 2;
  for (let y = from; y < to; y++) {
    const here = plane + <usize>y * stride;
    const u1 = plane + <usize>max(0, y - 1) * stride;
    const u2 = plane + <usize>max(0, y - 2) * stride;
    const u3 = plane + <usize>max(0, y - 3) * stride;
    const d1 = plane + <usize>min(last, y + 1) * stride;
    const d2 = plane + <usize>min(last, y + 2) * stride;
    const d3 = plane + <usize>min(last, y + 3) * stride;
    const result = out + <usize>y * stride;
    let x = 0;
    for (; x + 4 <= width; x += 4)
      putFloats(
        result,
        x,
        f32x4.add(
          f32x4.add(
            f32x4.mul(tap(taps, 0), floats(here, x)),
            f32x4.mul(tap(taps, 1), f32x4.add(floats(u1, x), floats(d1, x))),
          ),
          f32x4.add(
            f32x4.mul(tap(taps, 2), f32x4.add(floats(u2, x), floats(d2, x))),
            f32x4.mul(tap(taps, 3), f32x4.add(floats(u3, x), floats(d3, x))),
          ),
        ),
      );
    for (; x < width; x++)
      putFloat(
        result,
        x,
        float(taps, 0) * float(here, x) +
          float(taps, 1) * (float(u1, x) + float(d1, x)) +
          (float(taps, 2) * (float(u2, x) + float(d2, x)) +
            float(taps, 3) * (float(u3, x) + float(d3, x))),
      );
  }
}
