// Grain of pictures of every kind of samples.
import { finenessOf, grainOf } from './grain';

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
