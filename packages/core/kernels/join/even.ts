// A frame's samples with exposure and the lens's falloff taken off.

@inline
function float(base: usize, i: i32): f32 {
  return load<f32>(base + (<usize>i << 2));
}

/** Between two values of a table. */
@inline
function between(table: usize, at: f32): f32 {
  const i = <i32>at;
  const low = float(table, i);
  return low + (at - <f32>i) * (float(table, i + 1) - low);
}

/**
 * @param codes whole samples of `bytes` bytes, `channels` a pixel
 * @param table square roots of the linear values of all codes
 * @param lifts what a root is multiplied by, `rings` steps from the middle to the corner, as steps of `encoded`
 * @param roots the same a channel
 * @param encoded encoded values of `steps` roots
 */
export function even(
  codes: usize,
  bytes: i32,
  channels: i32,
  width: i32,
  height: i32,
  table: usize,
  lifts: usize,
  rings: i32,
  roots: usize,
  encoded: usize,
  steps: i32,
  out: usize,
  _part: i32,
  from: i32,
  to: i32,
): void {
  const mx = <f32>(width - 1) / 2;
  const my = <f32>(height - 1) / 2;
  const corner = mx * mx + my * my;
  const by = corner > 0 ? <f32>rings / corner : 0;
  const most = <f32>steps;
  let code = codes + <usize>(from * width * channels * bytes);
  let pixel = out + ((<usize>from * width) << 4);
  for (let y = from; y < to; y++) {
    const dy = <f32>y - my;
    for (let x = 0; x < width; x++, pixel += 16) {
      const dx = <f32>x - mx;
      const lift = between(lifts, (dx * dx + dy * dy) * by);
      for (let c = 0; c < channels; c++, code += bytes) {
        const value = bytes == 1 ? <i32>load<u8>(code) : <i32>load<u16>(code);
        const root = float(table, value) * lift * float(roots, c);
        store<f32>(pixel + (<usize>c << 2), between(encoded, min(most, root)));
      }
    }
  }
}
