// Kernel of the donor search: see src/donor/glance.ts for what it does and why.

/**
 * Mean squared differences between a ring and its image at places two px apart, four places at a time.
 * @param planes three planes of pairs of i16, `stride` pairs each: red and green; blue and -1, or 0 where nothing is
 * known; the slopes
 * @param half pairs of a row; the next row of places lies two rows on
 * @param offsets i32 a ring pixel: pair of its image at the first place
 * @param ring four pairs of i16 a ring pixel: the same three, and -1 for each slope that counts
 * @param unit squared codes that a squared step of colour stands for
 * @param steep the same of slopes
 * @param unknown squared codes that meeting something unknown costs
 * @param keep share of the squared sums of colour differences that is forgiven
 * @param out f32 a place, `across` a row
 * @param across a multiple of 4
 */
export function glance(
  planes: usize,
  stride: i32,
  half: i32,
  offsets: usize,
  ring: usize,
  n: i32,
  unit: f32,
  steep: f32,
  unknown: f32,
  keep: f32,
  out: usize,
  across: i32,
  down: i32,
): void {
  const second = (<usize>stride) << 2;
  const third = second << 1;
  const inverse = <f32>1 / <f32>n;
  const perColour = f32x4.splat(unit * inverse);
  const perSlope = f32x4.splat(steep * inverse);
  const perMean = f32x4.splat(keep * unit * inverse * inverse);
  const perLost = f32x4.splat(unknown * inverse);
  const all = f32x4.splat(<f32>n);
  for (let j = 0; j < down; j++)
    for (let i = 0; i < across; i += 4) {
      let colours = i32x4.splat(0);
      let slopes = i32x4.splat(0);
      let m0 = i16x8.splat(0);
      let m1 = i16x8.splat(0);
      let unseen = i32x4.splat(0);
      for (let k = 0; k < n; k++) {
        const at = planes + ((<usize>(load<i32>(offsets + (k << 2)) + 2 * j * half + i)) << 2);
        const w = ring + <usize>(k << 4);
        const p1 = v128.load(at + second);
        const seen = i32x4.shr_s(p1, 16);
        const d0 = v128.and(seen, i16x8.sub(v128.load32_splat(w), v128.load(at)));
        const d1 = v128.and(seen, i16x8.sub(v128.load32_splat(w + 4), p1));
        const d2 = v128.and(
          v128.and(seen, v128.load32_splat(w + 12)),
          i16x8.sub(v128.load32_splat(w + 8), v128.load(at + third)),
        );
        m0 = i16x8.add(m0, d0);
        m1 = i16x8.add(m1, d1);
        colours = i32x4.add(
          colours,
          i32x4.add(i32x4.dot_i16x8_s(d0, d0), i32x4.dot_i16x8_s(d1, d1)),
        );
        slopes = i32x4.add(slopes, i32x4.dot_i16x8_s(d2, d2));
        unseen = i32x4.add(unseen, seen);
      }
      const lost = f32x4.add(all, f32x4.convert_i32x4_s(unseen));
      const means = f32x4.add(
        f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(m0, m0)),
        f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(m1, m1)),
      );
      const differs = f32x4.add(
        f32x4.mul(perColour, f32x4.convert_i32x4_s(colours)),
        f32x4.mul(perSlope, f32x4.convert_i32x4_s(slopes)),
      );
      const rest = f32x4.sub(f32x4.mul(perLost, lost), f32x4.mul(perMean, means));
      v128.store(out + ((<usize>(j * across + i)) << 2), f32x4.add(differs, rest));
    }
}
