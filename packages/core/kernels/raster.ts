// What the cells of a picture hold: twin of src/raster/plain/cells.ts. See src/raster/cells.ts for what and why.

/** Doubles a cell: how many px, sums of three channels and of the steps from px to px. */
const SUMS = 5;

/** What cells are told from, words each; `out` has SUMS doubles a cell, zero before. */
// prettier-ignore
enum At { samples = 0, closed = 4, width = 8, height = 12, channels = 16, green = 20, blue = 24, cell = 28, columns = 32, out = 36 }

@inline
function word(record: usize, at: At): i32 {
  return load<i32>(record + at);
}

/** Sums over the cells of some rows of them. */
@inline
function cellsOf<T>(record: usize, from: i32, to: i32): void {
  const samples = <usize>word(record, At.samples);
  const closed = <usize>word(record, At.closed);
  const width = word(record, At.width);
  const cell = word(record, At.cell);
  const columns = word(record, At.columns);
  const step = <usize>word(record, At.channels) * sizeof<T>();
  const green = <usize>word(record, At.green) * sizeof<T>();
  const blue = <usize>word(record, At.blue) * sizeof<T>();
  for (let row = from; row < to; row++) {
    const bottom = min(word(record, At.height), (row + 1) * cell);
    for (let y = row * cell; y < bottom; y++) {
      let out = <usize>word(record, At.out) + 8 * SUMS * <usize>(row * columns);
      const last = (y + 1) * width - 1;
      for (let left = y * width; left <= last; left += cell, out += 8 * SUMS) {
        const end = min(last + 1, left + cell);
        let at = samples + <usize>left * step;
        let count: f64 = 0;
        let reds: f64 = load<f64>(out, 8);
        let greens: f64 = load<f64>(out, 16);
        let blues: f64 = load<f64>(out, 24);
        let steps: f64 = load<f64>(out, 32);
        for (let p = left; p < end; p++, at += step) {
          if (load<u8>(closed + p)) continue;
          const red = <f64>load<T>(at);
          count += 1;
          reds += red;
          greens += <f64>load<T>(at + green);
          blues += <f64>load<T>(at + blue);
          if (p < last) steps += Math.abs(red - <f64>load<T>(at + step));
        }
        store<f64>(out, load<f64>(out) + count);
        store<f64>(out, reds, 8);
        store<f64>(out, greens, 16);
        store<f64>(out, blues, 24);
        store<f64>(out, steps, 32);
      }
    }
  }
}

export function cellsBytes(record: usize, _part: i32, from: i32, to: i32): void {
  cellsOf<u8>(record, from, to);
}

export function cellsWords(record: usize, _part: i32, from: i32, to: i32): void {
  cellsOf<u16>(record, from, to);
}

export function cellsFloats(record: usize, _part: i32, from: i32, to: i32): void {
  cellsOf<f32>(record, from, to);
}
