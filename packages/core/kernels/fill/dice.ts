// The seeded source of chance of src/random/random.ts.

let state: u32 = 1;

@inline
export function begin(seed: i32): void {
  let s: u32 = <u32>((seed ^ 0x6d2b79f5) * <i32>0x85ebca6b) ^ 0x9e3779b9;
  s = (s ^ (s >> 15)) * 0x2c1b3c6d;
  state = s ? s : 0x1234567;
}

/** Goes on where a word in memory says it was left. */
@inline
export function resume(dice: usize): void {
  state = load<u32>(dice);
}

@inline
export function leave(dice: usize): void {
  store<u32>(dice, state);
}

/** A whole number low..high. */
@inline
export function between(low: i32, high: i32): i32 {
  state ^= state << 13;
  state ^= state >> 17;
  state ^= state << 5;
  return low + <i32>((<u64>state * <u64>(high - low + 1)) >> 32);
}
