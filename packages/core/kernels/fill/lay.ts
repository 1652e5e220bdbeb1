// The window laid down as the finest level: twin of src/fill/plain/lay.ts.

/** Four values of some pixels, 0 in the hole; grey counts as three equal channels. @param scale from a sample to quarters of a code */
@inline
export function quartersOf<T>(
  samples: usize,
  hole: usize,
  pixels: usize,
  channels: i32,
  scale: f64,
  from: usize,
  to: usize,
): void {
  const green = channels >= 3 ? sizeof<T>() : 0;
  const by = <usize>channels * sizeof<T>();
  samples += from * by;
  pixels += from << 3;
  for (let p = from; p < to; p++, samples += by, pixels += 8) {
    if (load<u8>(hole + p)) continue;
    if (sizeof<T>() == 1 && channels >= 3) {
      const codes = i16x8.extend_low_i8x16_u(v128.load32_zero(samples));
      const colours = v128.and(codes, i16x8(-1, -1, -1, 0, 0, 0, 0, 0));
      v128.store64_lane(pixels, i16x8.shl(colours, 2), 0);
      continue;
    }
    store<i16>(pixels, quarter<T>(samples, scale));
    store<i16>(pixels, quarter<T>(samples + green, scale), 2);
    store<i16>(pixels, quarter<T>(samples + 2 * green, scale), 4);
  }
}

@inline
function quarter<T>(sample: usize, scale: f64): i16 {
  if (sizeof<T>() == 1) return <i16>load<u8>(sample) << 2;
  return <i16>(<i32>(<f64>load<T>(sample) * scale + 0.5));
}
