// Luma of samples of any kind: twin of greyOf in src/raster/grey.ts.

/** Luma of pixels, 0..255 (ITU-R BT.601 weights). @param colours 1 or 3 of the channels @param scale from a sample to codes */
@inline
export function lumaOf<T>(
  samples: usize,
  count: i32,
  channels: i32,
  colours: i32,
  scale: f64,
  grey: usize,
): void {
  const by = <usize>channels * sizeof<T>();
  for (let p = 0; p < count; p++, samples += by, grey += 4) {
    let luma = <f64>load<T>(samples);
    if (colours > 1)
      luma =
        0.299 * luma +
        0.587 * <f64>load<T>(samples + sizeof<T>()) +
        0.114 * <f64>load<T>(samples + 2 * sizeof<T>());
    store<f32>(grey, <f32>(scale * luma));
  }
}
