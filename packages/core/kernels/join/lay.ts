// Frames laid on the canvas by a map that is known at every fourth pixel of every fourth row.

/** px from one known place of a map to the next. */
const STEP: i32 = 4;
const NOBODY: u8 = 255;

/** A place of a map, x and y, between the four known ones around it. */
@inline
function placeAt(grid: usize, points: i32, x: i32, y: i32): v128 {
  const upper = grid + (<usize>((y / STEP) * points + x / STEP) << 4);
  const lower = upper + (<usize>points << 4);
  const down = f64x2.splat(<f64>(y % STEP) / STEP);
  const across = f64x2.splat(<f64>(x % STEP) / STEP);
  const left = mixed(v128.load(upper), v128.load(lower), down);
  const right = mixed(v128.load(upper + 16), v128.load(lower + 16), down);
  return mixed(left, right, across);
}

@inline
function mixed(one: v128, other: v128, share: v128): v128 {
  return f64x2.add(one, f64x2.mul(share, f64x2.sub(other, one)));
}

/**
 * Which pixels of the canvas are a frame's: those it holds where the labels say so or where nobody was before.
 * @param labels one for every `step` x `step` pixels, `labelled` in a row
 */
export function claim(
  grid: usize,
  points: i32,
  width: i32,
  height: i32,
  owner: i32,
  labels: usize,
  labelled: i32,
  step: i32,
  owners: usize,
  canvas: i32,
  left: i32,
  top: i32,
  across: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const right = <f64>width - 0.5;
  const bottom = <f64>height - 0.5;
  for (let v = from; v < to; v++) {
    const row = labels + <usize>(((top + v) / step) * labelled);
    const own = owners + <usize>((top + v) * canvas + left);
    for (let u = 0; u < across; u++) {
      const mine = <i32>load<u8>(row + (left + u) / step) == owner;
      if (!mine && load<u8>(own + u) != NOBODY) continue;
      const at = placeAt(grid, points, u, v);
      const x = f64x2.extract_lane(at, 0);
      const y = f64x2.extract_lane(at, 1);
      if (x >= -0.5 && y >= -0.5 && x <= right && y <= bottom) store<u8>(own + u, <u8>owner);
    }
  }
}

@inline
function pixel(row: usize, x: i32): v128 {
  return v128.load(row + (<usize>x << 4));
}

@inline
function sum4(row: usize, a: i32, b: i32, c: i32, d: i32, weights: v128): v128 {
  return f32x4.add(
    f32x4.add(
      f32x4.mul(pixel(row, a), v128.shuffle<f32>(weights, weights, 0, 0, 0, 0)),
      f32x4.mul(pixel(row, b), v128.shuffle<f32>(weights, weights, 1, 1, 1, 1)),
    ),
    f32x4.add(
      f32x4.mul(pixel(row, c), v128.shuffle<f32>(weights, weights, 2, 2, 2, 2)),
      f32x4.mul(pixel(row, d), v128.shuffle<f32>(weights, weights, 3, 3, 3, 3)),
    ),
  );
}

/** Weights of the four pixels around a place (Keys 1981, a = -1/2). @param f how far it lies beyond the second, 0..1 */
@inline
function cubic(f: f32): v128 {
  const g: f32 = 1 - f;
  return f32x4(
    <f32>-0.5 * f * g * g,
    (<f32>1.5 * f - <f32>2.5) * f * f + 1,
    (<f32>1.5 * g - <f32>2.5) * g * g + 1,
    <f32>-0.5 * g * f * f,
  );
}

/**
 * Lays a frame on a piece of the canvas, sharply where it is the owner and by two pixels each way elsewhere, since only
 * coarse bands look there; its last pixels go on beyond it. What it owns counts 1.
 */
export function lay(
  grid: usize,
  points: i32,
  frame: usize,
  width: i32,
  height: i32,
  owner: i32,
  owners: usize,
  canvas: i32,
  tall: i32,
  left: i32,
  top: i32,
  across: i32,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const right = width - 1;
  const bottom = height - 1;
  const low = f64x2.splat(0);
  const high = f64x2(<f64>right, <f64>bottom);
  const stride = <usize>width << 4;
  for (let v = from; v < to; v++) {
    const inside = top + v < tall ? min(across, canvas - left) : 0;
    const own = owners + <usize>((top + v) * canvas + left);
    let pix = out + (<usize>(v * across) << 4);
    for (let u = 0; u < across; u++, pix += 16) {
      const at = f64x2.min(high, f64x2.max(low, placeAt(grid, points, u, v)));
      const sx = f64x2.extract_lane(at, 0);
      const sy = f64x2.extract_lane(at, 1);
      const x = <i32>sx;
      const y = <i32>sy;
      const f = <f32>(sx - <f64>x);
      const g = <f32>(sy - <f64>y);
      const next = min(x + 1, right);
      const r1 = frame + <usize>y * stride;
      const r2 = y < bottom ? r1 + stride : r1;
      let value: v128;
      let counts: f32 = 0;
      if (u < inside && <i32>load<u8>(own + u) == owner) {
        counts = 1;
        const before = max(x - 1, 0);
        const after = min(x + 2, right);
        const r0 = y > 0 ? r1 - stride : r1;
        const r3 = y < bottom - 1 ? r2 + stride : r2;
        const w = cubic(f);
        const h = cubic(g);
        value = f32x4.add(
          f32x4.add(
            f32x4.mul(sum4(r0, before, x, next, after, w), v128.shuffle<f32>(h, h, 0, 0, 0, 0)),
            f32x4.mul(sum4(r1, before, x, next, after, w), v128.shuffle<f32>(h, h, 1, 1, 1, 1)),
          ),
          f32x4.add(
            f32x4.mul(sum4(r2, before, x, next, after, w), v128.shuffle<f32>(h, h, 2, 2, 2, 2)),
            f32x4.mul(sum4(r3, before, x, next, after, w), v128.shuffle<f32>(h, h, 3, 3, 3, 3)),
          ),
        );
      } else {
        const s = f32x4.splat(f);
        const upper = f32x4.add(pixel(r1, x), f32x4.mul(s, f32x4.sub(pixel(r1, next), pixel(r1, x))));
        const lower = f32x4.add(pixel(r2, x), f32x4.mul(s, f32x4.sub(pixel(r2, next), pixel(r2, x))));
        value = f32x4.add(upper, f32x4.mul(f32x4.splat(g), f32x4.sub(lower, upper)));
      }
      v128.store(pix, f32x4.replace_lane(value, 3, counts));
    }
  }
}
