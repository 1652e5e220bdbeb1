/** Half the side of a patch: 7x7. */
export const HALF: i32 = 3;

@inline
export function at32(base: usize, i: i32): i32 {
  return load<i32>(base + (<usize>i << 2));
}

@inline
export function put32(base: usize, i: i32, value: i32): void {
  store<i32>(base + (<usize>i << 2), value);
}
