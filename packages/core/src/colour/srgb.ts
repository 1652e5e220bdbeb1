/**
 * The sRGB transfer function, IEC 61966-2-1:1999. Encoded (display-referred) and linear values are 0..1.
 * Used for measuring and for display; nothing that decides a stored record depends on its last bit.
 */
export function toLinear(encoded: number): number {
  return encoded <= 0.04045 ? encoded / 12.92 : Math.pow((encoded + 0.055) / 1.055, 2.4);
}

/** Inverse of {@link toLinear}. */
export function toEncoded(linear: number): number {
  return linear <= 0.0031308 ? 12.92 * linear : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
}

const OF_CODE = new Float64Array(256).map((_, code) => toLinear(code / 255));

/** What {@link toLinear} says of samples up to a white: of 8-bit codes by table. */
export function linearOf(white: number): (sample: number) => number {
  return white === 255 ? (code) => OF_CODE[code]! : (sample) => toLinear(sample / white);
}

/** Linear value 0..1 of every 8-bit code. */
export const LINEAR_OF_CODE: Float32Array = Float32Array.from({ length: 256 }, (_, code) =>
  toLinear(code / 255),
);

const STEPS = 4096;
const CODE_OF_LINEAR: Uint8Array = Uint8Array.from({ length: STEPS + 1 }, (_, i) =>
  Math.round(toEncoded(i / STEPS) * 255),
);

/** Nearest 8-bit code of a linear value 0..1 (by table, exact to half a code above code 8). */
export function codeOfLinear(linear: number): number {
  return CODE_OF_LINEAR[(linear * STEPS + 0.5) | 0]!;
}
