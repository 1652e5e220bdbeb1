// Bands of a picture by the kernel 1 4 6 4 1 (Burt, Adelson, "A Multiresolution Spline", ACM TOG 2(4), 1983). Sides are whole
// multiples of the coarsest band's pixel; the last pixels go on beyond the border.

@inline
function quad(base: usize, i: i32): v128 {
  return v128.load(base + (<usize>i << 4));
}

@inline
function taps(row: usize, a: i32, b: i32, c: i32, d: i32, e: i32): v128 {
  return f32x4.add(
    f32x4.add(
      f32x4.mul(f32x4.splat(6), quad(row, c)),
      f32x4.mul(f32x4.splat(4), f32x4.add(quad(row, b), quad(row, d))),
    ),
    f32x4.add(quad(row, a), quad(row, e)),
  );
}

/** Half the size. Ranges are rows of the result, `width` is that of what is halved. */
export function reduce(
  fine: usize,
  width: i32,
  height: i32,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const half = width >> 1;
  const stride = <usize>width << 4;
  for (let y = from; y < to; y++) {
    const r2 = fine + <usize>(2 * y) * stride;
    const r1 = y > 0 ? r2 - stride : r2;
    const r0 = y > 0 ? r1 - stride : r2;
    const r3 = r2 + stride;
    const r4 = 2 * y + 2 < height ? r3 + stride : r3;
    let pixel = out + (<usize>(y * half) << 4);
    for (let x = 0; x < half; x++, pixel += 16) {
      const c = 2 * x;
      const b = x > 0 ? c - 1 : c;
      const a = x > 0 ? c - 2 : c;
      const d = c + 1;
      const e = c + 2 < width ? c + 2 : d;
      const sum = f32x4.add(
        f32x4.add(
          f32x4.mul(f32x4.splat(6), taps(r2, a, b, c, d, e)),
          f32x4.mul(f32x4.splat(4), f32x4.add(taps(r1, a, b, c, d, e), taps(r3, a, b, c, d, e))),
        ),
        f32x4.add(taps(r0, a, b, c, d, e), taps(r4, a, b, c, d, e)),
      );
      v128.store(pixel, f32x4.mul(sum, f32x4.splat(1.0 / 256)));
    }
  }
}

/** Adds a band's pixel to the sums, as much as it counts. */
@inline
function weigh(sums: usize, band: v128, counts: f32): void {
  const value = f32x4.replace_lane(band, 3, 1);
  v128.store(sums, f32x4.add(v128.load(sums), f32x4.mul(f32x4.splat(counts), value)));
}

/**
 * A sheet at twice its size: taken off the finer sheet, and what is left added to the sums as much as it counts; or, when
 * settling, added to the sums made means.
 * @param wide pixels in a row of the sums @param x, y where the sheet lies on them
 */
@inline
function twice(
  settling: bool,
  fine: usize,
  width: i32,
  coarse: usize,
  sums: usize,
  wide: i32,
  x: i32,
  y: i32,
  rows: i32,
  from: i32,
  to: i32,
): void {
  const half = width >> 1;
  const stride = <usize>half << 4;
  const down = <usize>width << 4;
  const under = <usize>wide << 4;
  for (let v = from; v < to; v++) {
    const here = coarse + <usize>v * stride;
    const above = v > 0 ? here - stride : here;
    const below = v < rows - 1 ? here + stride : here;
    let pixel = fine + <usize>(2 * v) * down;
    let sum = sums + (<usize>((y + 2 * v) * wide + x) << 4);
    for (let u = 0; u < half; u++, pixel += 32, sum += 32) {
      const l = max(u - 1, 0);
      const r = min(u + 1, half - 1);
      const el = even(quad(above, l), quad(here, l), quad(below, l));
      const em = even(quad(above, u), quad(here, u), quad(below, u));
      const er = even(quad(above, r), quad(here, r), quad(below, r));
      const ol = odd(quad(here, l), quad(below, l));
      const om = odd(quad(here, u), quad(below, u));
      const or = odd(quad(here, r), quad(below, r));
      put(settling, pixel, even(el, em, er), sum);
      put(settling, pixel + 16, odd(em, er), sum + 16);
      put(settling, pixel + down, even(ol, om, or), sum + under);
      put(settling, pixel + down + 16, odd(om, or), sum + under + 16);
    }
  }
}

@inline
function put(settling: bool, pixel: usize, coarse: v128, sum: usize): void {
  if (settling) {
    v128.store(sum, f32x4.add(meanOf(v128.load(sum)), coarse));
    return;
  }
  const value = v128.load(pixel);
  weigh(sum, f32x4.sub(value, coarse), f32x4.extract_lane(value, 3));
}

/** What is lost by halving, added to the canvas' sums. Ranges are rows of the halved sheet. */
export function blend(
  fine: usize,
  width: i32,
  coarse: usize,
  sums: usize,
  wide: i32,
  x: i32,
  y: i32,
  rows: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  twice(false, fine, width, coarse, sums, wide, x, y, rows, from, to);
}

@inline
function even(before: v128, here: v128, after: v128): v128 {
  return f32x4.mul(
    f32x4.add(f32x4.mul(f32x4.splat(6), here), f32x4.add(before, after)),
    f32x4.splat(0.125),
  );
}

@inline
function odd(here: v128, after: v128): v128 {
  return f32x4.mul(f32x4.add(here, after), f32x4.splat(0.5));
}

/** The coarsest sheet itself, added to its sums. */
export function rest(
  sheet: usize,
  width: i32,
  sums: usize,
  wide: i32,
  x: i32,
  y: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let v = from; v < to; v++) {
    let pixel = sheet + (<usize>(v * width) << 4);
    let sum = sums + (<usize>((y + v) * wide + x) << 4);
    for (let u = 0; u < width; u++, pixel += 16, sum += 16) {
      const value = v128.load(pixel);
      weigh(sum, value, f32x4.extract_lane(value, 3));
    }
  }
}

@inline
function meanOf(sum: v128): v128 {
  const counts = f32x4.extract_lane(sum, 3);
  return f32x4.mul(sum, f32x4.splat(counts > <f32>1e-6 ? <f32>1 / counts : 0));
}

/** The coarsest sums made means. */
export function average(sums: usize, width: i32, _part: i32, from: i32, to: i32): void {
  const end = sums + (<usize>(to * width) << 4);
  for (let at = sums + (<usize>(from * width) << 4); at < end; at += 16)
    v128.store(at, meanOf(v128.load(at)));
}

/** Sums made means, on top of the next coarser band's, which is done. Ranges are the coarser band's rows. */
export function settle(
  sums: usize,
  width: i32,
  coarse: usize,
  rows: i32,
  _part: i32,
  from: i32,
  to: i32,
): void {
  twice(true, sums, width, coarse, sums, width, 0, 0, rows, from, to);
}

/** Samples of the canvas: codes up to `white` in 1 or 2 bytes, or floats in 4; 0 where no frame reaches. */
export function encode(
  sheet: usize,
  wide: i32,
  owners: usize,
  width: i32,
  channels: i32,
  bytes: i32,
  white: f32,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  for (let y = from; y < to; y++) {
    let pixel = sheet + (<usize>(y * wide) << 4);
    const own = owners + <usize>(y * width);
    let sample = out + <usize>(y * width * channels * bytes);
    for (let x = 0; x < width; x++, pixel += 16) {
      const none = load<u8>(own + x) == 255;
      for (let c = 0; c < channels; c++, sample += bytes) {
        const share: f32 = none ? 0 : load<f32>(pixel + (<usize>c << 2));
        const held = max<f32>(0, min<f32>(1, share)) * white;
        if (bytes == 4) store<f32>(sample, held);
        else if (bytes == 2) store<u16>(sample, <u16>(held + 0.5));
        else store<u8>(sample, <u8>(held + 0.5));
      }
    }
  }
}
