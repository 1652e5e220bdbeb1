// How levels lie in memory. A level is a row of words: what it has of cells and runs, then the addresses of its arrays. Cell 0
// is no unknown: it is the neighbour of those that have none, its weights and its answer stay 0.

export const WIDTH: usize = 0;
export const HEIGHT: usize = 4;
export const CELLS: usize = 8;
export const RUNS: usize = 12;
/** First pixel of each run and the one after its last. */
export const PIXELS: usize = 16;
/** First cell of each run, doubled, and whether it is odd on the chessboard; at the end the cell after the last. */
export const STARTS: usize = 20;
export const ABOVE: usize = 24;
export const UNDER: usize = 28;
export const RIGHT: usize = 32;
export const BELOW: usize = 36;
export const OWN: usize = 40;
export const DIAGONAL: usize = 44;
export const INVERSE: usize = 48;
export const X: usize = 52;
export const B: usize = 56;
/** The four cells of the next level about each: its own, the near one beside that, and those of the near row. */
export const PARENTS: usize = 60;
/** First run of each row, and at the end the run after the last. */
export const ROWS: usize = 64;
/** How many rows are done with what comes before a stage of the cycle, for threads that share the stages. */
export const MARKS: usize = 68;
export const LEVEL: usize = 80;

@inline
export function word(level: usize, field: usize): usize {
  return <usize>load<u32>(level + field);
}

@inline
export function quad(base: usize, i: usize): v128 {
  return v128.load(base + (i << 4));
}

@inline
export function splat(base: usize, i: usize): v128 {
  return v128.load32_splat(base + (i << 2));
}

@inline
export function single(base: usize, i: usize): f32 {
  return load<f32>(base + (i << 2));
}

/** First cell of a row. */
@inline
export function firstOf(level: usize, y: usize): usize {
  return word(word(level, STARTS), word(word(level, ROWS), y << 2) << 2) >> 1;
}

/** What the neighbours say, by their weights. */
@inline
export function around(
  i: usize,
  above: usize,
  under: usize,
  right: usize,
  below: usize,
  x: usize,
): v128 {
  const up = word(above, i << 2);
  return f32x4.add(
    f32x4.add(
      f32x4.mul(splat(right, i), quad(x, i + 1)),
      f32x4.mul(splat(right, i - 1), quad(x, i - 1)),
    ),
    f32x4.add(
      f32x4.mul(splat(below, i), quad(x, word(under, i << 2))),
      f32x4.mul(splat(below, up), quad(x, up)),
    ),
  );
}
