// Sums kept in doubles, lane by lane.

/** Adds four lanes to four doubles. */
@inline
export function addDoubles(to: usize, v: v128): void {
  const low = f64x2.promote_low_f32x4(v);
  const high = f64x2.promote_low_f32x4(v128.shuffle<u32>(v, v, 2, 3, 2, 3));
  v128.store(to, f64x2.add(v128.load(to), low));
  v128.store(to + 16, f64x2.add(v128.load(to + 16), high));
}
