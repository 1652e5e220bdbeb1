// Twin of src/fill/plain/vote.ts. Single precision throughout, four patches at a time.
import { HALF, at32, put32 } from './memory';

/** Patches over a pixel, rounded up to whole fours. */
const MOST: i32 = 52;
/** Bytes of a part's room: a cache line is left between parts, lest threads write to the same one. */
const ROOM: usize = 704;
const LEAST_SCALE: f64 = 49.0 * 64.0;

/**
 * Gathers the patches over hole pixel p: the pixel each says it is, and how much that counts.
 * @param mine room for three rows of MOST words: pixels, weights, trusts
 * @param every 1: all of them; 2: those on one colour of a chessboard
 * @returns how many they are
 */
@inline
function gather(
  p: i32,
  number: usize,
  match: usize,
  distance: usize,
  trust: usize,
  mine: usize,
  width: i32,
  height: i32,
  sharpness: f64,
  every: i32,
): i32 {
  const x = p % width;
  const y = p / width;
  const weights = mine + (<usize>MOST << 2);
  const trusts = weights + (<usize>MOST << 2);
  const left = max(x - HALF, HALF);
  const right = min(x + HALF, width - HALF - 1);
  const top = max(y - HALF, HALF);
  const bottom = min(y + HALF, height - HALF - 1);
  let n = 0;
  let least = i32.MAX_VALUE;
  let sum: i64 = 0;
  for (let b = top; b <= bottom; b++) {
    const first = left + ((left ^ b) & (every - 1));
    for (let a = first, q = b * width + first; a <= right; a += every, q += every) {
      const i = at32(number, q);
      if (i < 0) continue;
      const d = at32(distance, i);
      put32(mine, n, at32(match, i) - (q - p));
      put32(weights, n, d);
      put32(trusts, n, at32(trust, i));
      sum += d;
      least = min(least, d);
      n++;
    }
  }
  if (!n) return 0;
  const scale = max((<f64>sum / <f64>n) * sharpness, LEAST_SCALE * sharpness);
  const share = f32x4.splat(<f32>(1.0 / scale));
  const from = i32x4.splat(least);
  const one = f32x4.splat(1);
  const eighth = f32x4.splat(0.125);
  const small = f32x4.splat(0.0078125);
  for (let m = 0; m < n; m += 4) {
    // Stands in for exp(-t): (1 + t/8 + t^2/128)^-8.
    const at = weights + (<usize>m << 2);
    const t = f32x4.mul(f32x4.convert_i32x4_s(i32x4.sub(v128.load(at), from)), share);
    let base = f32x4.add(
      f32x4.add(one, f32x4.mul(t, eighth)),
      f32x4.mul(f32x4.mul(t, t), small),
    );
    base = f32x4.mul(base, base);
    base = f32x4.mul(base, base);
    base = f32x4.mul(base, base);
    v128.store(at, f32x4.div(v128.load(trusts + (<usize>m << 2)), base));
  }
  return n;
}

/** Votes for the holes from..to; `scratch` has {@link ROOM} a part. */
export function vote(
  pixels: usize,
  number: usize,
  match: usize,
  distance: usize,
  trust: usize,
  holes: usize,
  scratch: usize,
  width: i32,
  height: i32,
  sharpness: f64,
  every: i32,
  part: i32,
  from: i32,
  to: i32,
): void {
  const mine = scratch + <usize>part * ROOM;
  const weights = mine + (<usize>MOST << 2);
  const half = f32x4.splat(0.5);
  for (let k = from; k < to; k++) {
    const p = at32(holes, k);
    const n = gather(p, number, match, distance, trust, mine, width, height, sharpness, every);
    if (!n) continue;
    let total: f32 = 0;
    let sum = f32x4.splat(0);
    for (let m = 0; m < n; m++) {
      const w = load<f32>(weights + (<usize>m << 2));
      const four = v128.load16x4_u(pixels + (<usize>at32(mine, m) << 3));
      total += w;
      sum = f32x4.add(sum, f32x4.mul(f32x4.splat(w), f32x4.convert_i32x4_u(four)));
    }
    const mean = f32x4.add(f32x4.div(sum, f32x4.splat(total)), half);
    const whole = i32x4.trunc_sat_f32x4_u(mean);
    v128.store64_lane(
      pixels + (<usize>p << 3),
      i16x8.narrow_i32x4_u(whole, whole),
      0,
    );
  }
}

/** For the holes from..to the copied pixel that the patches over them agree on most; -1 where none may be copied. */
export function agree(
  hole: usize,
  banned: usize,
  number: usize,
  match: usize,
  distance: usize,
  trust: usize,
  holes: usize,
  scratch: usize,
  chosen: usize,
  width: i32,
  height: i32,
  sharpness: f64,
  part: i32,
  from: i32,
  to: i32,
): void {
  const mine = scratch + <usize>part * ROOM;
  const weights = mine + (<usize>MOST << 2);
  for (let k = from; k < to; k++) {
    const p = at32(holes, k);
    const n = gather(p, number, match, distance, trust, mine, width, height, sharpness, 1);
    let count = 0;
    for (let m = 0; m < n; m++) {
      const q = at32(mine, m);
      if (load<u8>(hole + q) | load<u8>(banned + q)) continue;
      const w = load<f32>(weights + (<usize>m << 2));
      let j = 0;
      const like = i32x4.splat(q);
      for (; j < count; j += 4) {
        const same = i32x4.bitmask(i32x4.eq(v128.load(mine + (<usize>j << 2)), like));
        if (!same) continue;
        j += ctz(same);
        break;
      }
      // What is read beyond the last one that was told apart is none.
      j = min(j, count);
      const at = weights + (<usize>j << 2);
      if (j < count) store<f32>(at, load<f32>(at) + w);
      else {
        put32(mine, j, q);
        store<f32>(at, w);
        count++;
      }
    }
    let best = -1;
    for (let j = 0; j < count; j++)
      if (best < 0 || load<f32>(weights + (<usize>j << 2)) > load<f32>(weights + (<usize>best << 2)))
        best = j;
    put32(chosen, k, best < 0 ? -1 : at32(mine, best));
  }
}
