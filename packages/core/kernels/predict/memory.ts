// How tiles lie in memory.

@inline
export function word(at: usize): usize {
  return <usize>load<u32>(at);
}

/** Signed: neighbours lie before. */
@inline
export function offset(offsets: usize, k: i32): isize {
  return <isize>load<i32>(offsets + (<usize>k << 2));
}

/** The four lanes of a vector, added up. */
@inline
export function addUp(v: v128): f32 {
  return (
    f32x4.extract_lane(v, 0) +
    f32x4.extract_lane(v, 1) +
    f32x4.extract_lane(v, 2) +
    f32x4.extract_lane(v, 3)
  );
}

/** Between two floats of a list. */
@inline
export function between(gains: usize, a: i32, b: i32, share: f32): f32 {
  const first = load<f32>(gains + (<usize>a << 2));
  return first + share * (load<f32>(gains + (<usize>b << 2)) - first);
}
