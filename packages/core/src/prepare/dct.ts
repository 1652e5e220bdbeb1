/** Side of a block, px. */
export const BLOCK = 8;

/** cos(k pi / 16) for k = 0..16 by half angles: square roots are exact to the last bit everywhere, cosines are not. */
const COSINES = cosines();
/** Row u holds the u-th basis function, orthonormal. */
const BASIS = Float64Array.from({ length: 64 }, (_, i) => {
  const [u, x] = [i >> 3, i & 7];
  return (u === 0 ? Math.sqrt(1 / 8) : 0.5) * cosineOf((2 * x + 1) * u);
});

function cosines(): number[] {
  const root = Math.SQRT2;
  const eighth = Math.sqrt(2 + root) / 2;
  const sixteenth = Math.sqrt(2 + Math.sqrt(2 + root)) / 2;
  const three = Math.sqrt(2 + Math.sqrt(2 - root)) / 2;
  const five = Math.sqrt(2 - Math.sqrt(2 - root)) / 2;
  const seven = Math.sqrt(2 - Math.sqrt(2 + root)) / 2;
  const threeEighths = Math.sqrt(2 - root) / 2;
  return [1, sixteenth, eighth, three, root / 2, five, threeEighths, seven, 0];
}

/** cos(k pi / 16). */
function cosineOf(k: number): number {
  const turned = k % 32;
  const folded = turned > 16 ? 32 - turned : turned;
  return folded <= 8 ? COSINES[folded]! : -COSINES[16 - folded]!;
}

/**
 * Discrete cosine transform of a block of 8 by 8 values in place (ITU-T T.81, A.3.3), or its inverse: rows, then columns, by
 * sums and differences of opposite values.
 * @param block 64 values, row by row; the coefficients lie likewise
 */
export function dct(block: Float64Array): void {
  for (let row = 0; row < 64; row += 8) forward(block, row, 1);
  for (let column = 0; column < 8; column++) forward(block, column, 8);
}

/** @param columns of coefficients that are not zero, from the left, 1..8 */
export function inverseDct(block: Float64Array, columns = BLOCK): void {
  for (let column = 0; column < columns; column++) backward(block, column, 8);
  for (let row = 0; row < 64; row += 8) backward(block, row, 1);
}

const even = new Float64Array(4);
const odd = new Float64Array(4);

function forward(block: Float64Array, from: number, step: number): void {
  for (let x = 0; x < 4; x++) {
    const a = block[from + x * step]!;
    const b = block[from + (7 - x) * step]!;
    even[x] = a + b;
    odd[x] = a - b;
  }
  for (let u = 0; u < 8; u++) {
    const half = u & 1 ? odd : even;
    const b = 8 * u;
    block[from + u * step] =
      BASIS[b]! * half[0]! +
      BASIS[b + 1]! * half[1]! +
      BASIS[b + 2]! * half[2]! +
      BASIS[b + 3]! * half[3]!;
  }
}

function backward(block: Float64Array, from: number, step: number): void {
  for (let x = 0; x < 4; x++) {
    even[x] =
      BASIS[x]! * block[from]! +
      BASIS[16 + x]! * block[from + 2 * step]! +
      BASIS[32 + x]! * block[from + 4 * step]! +
      BASIS[48 + x]! * block[from + 6 * step]!;
    odd[x] =
      BASIS[8 + x]! * block[from + step]! +
      BASIS[24 + x]! * block[from + 3 * step]! +
      BASIS[40 + x]! * block[from + 5 * step]! +
      BASIS[56 + x]! * block[from + 7 * step]!;
  }
  for (let x = 0; x < 4; x++) {
    block[from + x * step] = even[x]! + odd[x]!;
    block[from + (7 - x) * step] = even[x]! - odd[x]!;
  }
}
