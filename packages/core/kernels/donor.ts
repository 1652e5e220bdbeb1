// Kernel of the donor search: see src/donor/glance.ts for what it does and why.

/**
 * Mean squared differences between a ring and its image at places two px apart, four places at a time.
 * @param planes six planes of f32, `stride` cells each: three colours, two slopes, 1 where nothing is known
 * @param half cells of a row; the next row of places lies two rows on
 * @param offsets i32 a ring pixel: cell of its image at the first place
 * @param ring seven f32 a ring pixel: colours and slopes it has, what a squared difference of each slope counts
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
  xx: f32,
  xy: f32,
  yx: f32,
  yy: f32,
  unknown: f32,
  keep: f32,
  out: usize,
  across: i32,
  down: i32,
): void {
  const plane = (<usize>stride) << 2;
  const one = f32x4.splat(1);
  const lost = f32x4.splat(unknown);
  const inverse = f32x4.splat(<f32>1 / <f32>n);
  const forgiven = f32x4.splat(keep);
  for (let j = 0; j < down; j++)
    for (let i = 0; i < across; i += 4) {
      let sum = f32x4.splat(0);
      let m0 = f32x4.splat(0);
      let m1 = f32x4.splat(0);
      let m2 = f32x4.splat(0);
      for (let k = 0; k < n; k++) {
        const at = planes + ((<usize>(load<i32>(offsets + (k << 2)) + 2 * j * half + i)) << 2);
        const w = ring + <usize>(28 * k);
        const blocked = v128.load(at + 5 * plane);
        const seen = f32x4.sub(one, blocked);
        const a = f32x4.mul(seen, f32x4.sub(v128.load32_splat(w), v128.load(at)));
        const b = f32x4.mul(seen, f32x4.sub(v128.load32_splat(w + 4), v128.load(at + plane)));
        const c = f32x4.mul(seen, f32x4.sub(v128.load32_splat(w + 8), v128.load(at + 2 * plane)));
        const gx = v128.load(at + 3 * plane);
        const gy = v128.load(at + 4 * plane);
        const u = f32x4.sub(
          v128.load32_splat(w + 12),
          f32x4.add(f32x4.mul(f32x4.splat(xx), gx), f32x4.mul(f32x4.splat(yx), gy)),
        );
        const v = f32x4.sub(
          v128.load32_splat(w + 16),
          f32x4.add(f32x4.mul(f32x4.splat(xy), gx), f32x4.mul(f32x4.splat(yy), gy)),
        );
        m0 = f32x4.add(m0, a);
        m1 = f32x4.add(m1, b);
        m2 = f32x4.add(m2, c);
        const colours = f32x4.add(f32x4.mul(a, a), f32x4.add(f32x4.mul(b, b), f32x4.mul(c, c)));
        const slopes = f32x4.add(
          f32x4.mul(v128.load32_splat(w + 20), f32x4.mul(u, u)),
          f32x4.mul(v128.load32_splat(w + 24), f32x4.mul(v, v)),
        );
        sum = f32x4.add(
          sum,
          f32x4.add(colours, f32x4.add(f32x4.mul(seen, slopes), f32x4.mul(blocked, lost))),
        );
      }
      const means = f32x4.add(f32x4.mul(m0, m0), f32x4.add(f32x4.mul(m1, m1), f32x4.mul(m2, m2)));
      const rest = f32x4.sub(sum, f32x4.mul(forgiven, f32x4.mul(means, inverse)));
      v128.store(out + (<usize>(j * across + i) << 2), f32x4.mul(rest, inverse));
    }
}
