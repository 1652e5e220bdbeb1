@inline
export function float(base: usize, i: i32): f32 {
  return load<f32>(base + (<usize>i << 2));
}

@inline
export function floats(base: usize, i: i32): v128 {
  return v128.load(base + (<usize>i << 2));
}

@inline
export function putFloat(base: usize, i: i32, value: f32): void {
  store<f32>(base + (<usize>i << 2), value);
}

@inline
export function putFloats(base: usize, i: i32, value: v128): void {
  v128.store(base + (<usize>i << 2), value);
}
