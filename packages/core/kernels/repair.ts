// Copies in a picture: what is asked of their tones, how they are corrected, how they fit. See src/repair for what and why.
// Samples are bytes, 16-bit words or floats; corrections are floats for bytes and doubles for the others.
import { askOf } from './repair/ask';
import { correctBy, holdBack } from './repair/correct';
import { Copies, Part } from './repair/memory';
import { finenessOf, grainOf } from './repair/grain';
import { addMisfit } from './repair/misfit';

export { places } from './repair/grain';

export function askBytes(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  sums: usize,
  held: usize,
  asked: usize,
): void {
  askOf<u8, f32>(copies, part, tie, ring, ends, sums, held, asked);
}

export function correctBytes(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
): void {
  correctBy<u8, f32>(copies, part, correction, colour);
}

export function misfitBytes(
  copies: Copies,
  left: i32,
  top: i32,
  across: i32,
  down: i32,
  side: i32,
  wide: i32,
  unlike: usize,
  steps: usize,
): void {
  addMisfit<u8>(copies, left, top, across, down, side, wide, unlike, steps);
}

export function askWords(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  sums: usize,
  held: usize,
  asked: usize,
): void {
  askOf<u16, f64>(copies, part, tie, ring, ends, sums, held, asked);
}

export function correctWords(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
): void {
  correctBy<u16, f64>(copies, part, correction, colour);
}

export function misfitWords(
  copies: Copies,
  left: i32,
  top: i32,
  across: i32,
  down: i32,
  side: i32,
  wide: i32,
  unlike: usize,
  steps: usize,
): void {
  addMisfit<u16>(copies, left, top, across, down, side, wide, unlike, steps);
}

export function askFloats(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  sums: usize,
  held: usize,
  asked: usize,
): void {
  askOf<f32, f64>(copies, part, tie, ring, ends, sums, held, asked);
}

export function correctFloats(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
): void {
  correctBy<f32, f64>(copies, part, correction, colour);
}

export function misfitFloats(
  copies: Copies,
  left: i32,
  top: i32,
  across: i32,
  down: i32,
  side: i32,
  wide: i32,
  unlike: usize,
  steps: usize,
): void {
  addMisfit<f32>(copies, left, top, across, down, side, wide, unlike, steps);
}

export function holdSingle(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
): i32 {
  return holdBack<f32>(part, correction, colours, drift, tint, firmly);
}

export function holdDouble(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
): i32 {
  return holdBack<f64>(part, correction, colours, drift, tint, firmly);
}

export function finenessBytes(
  samples: usize,
  width: i32,
  channels: i32,
  colours: i32,
  places: usize,
  count: i32,
  each: i32,
  out: usize,
): void {
  finenessOf<u8>(samples, width, channels, colours, places, count, each, out);
}

export function grainBytes(
  samples: usize,
  coverage: usize,
  width: i32,
  channels: i32,
  colours: i32,
  left: i32,
  top: i32,
  right: i32,
  bottom: i32,
  deviation: f64,
  white: f64,
  state: u32,
): void {
  grainOf<u8>(
    samples, coverage, width, channels, colours, left, top, right, bottom, deviation, white, state,
  );
}

export function finenessWords(
  samples: usize,
  width: i32,
  channels: i32,
  colours: i32,
  places: usize,
  count: i32,
  each: i32,
  out: usize,
): void {
  finenessOf<u16>(samples, width, channels, colours, places, count, each, out);
}

export function grainWords(
  samples: usize,
  coverage: usize,
  width: i32,
  channels: i32,
  colours: i32,
  left: i32,
  top: i32,
  right: i32,
  bottom: i32,
  deviation: f64,
  white: f64,
  state: u32,
): void {
  grainOf<u16>(
    samples, coverage, width, channels, colours, left, top, right, bottom, deviation, white, state,
  );
}

export function finenessFloats(
  samples: usize,
  width: i32,
  channels: i32,
  colours: i32,
  places: usize,
  count: i32,
  each: i32,
  out: usize,
): void {
  finenessOf<f32>(samples, width, channels, colours, places, count, each, out);
}

export function grainFloats(
  samples: usize,
  coverage: usize,
  width: i32,
  channels: i32,
  colours: i32,
  left: i32,
  top: i32,
  right: i32,
  bottom: i32,
  deviation: f64,
  white: f64,
  state: u32,
): void {
  grainOf<f32>(
    samples, coverage, width, channels, colours, left, top, right, bottom, deviation, white, state,
  );
}
