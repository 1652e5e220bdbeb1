/** Quantization of luminance that the standard gives as an example, row by row (ITU-T T.81, table K.1). */
const LUMINANCE = [
  16, 11, 10, 16, 24, 40, 51, 61, 12, 12, 14, 19, 26, 58, 60, 55, 14, 13, 16, 24, 40, 57, 69, 56,
  14, 17, 22, 29, 51, 87, 80, 62, 18, 22, 37, 56, 68, 109, 103, 77, 24, 35, 55, 64, 81, 104, 113,
  92, 49, 64, 78, 87, 103, 121, 120, 101, 72, 92, 95, 98, 112, 100, 103, 99,
] as const;

/** The same for colour differences (table K.2). */
const CHROMINANCE = [
  17, 18, 24, 47, 99, 99, 99, 99, 18, 21, 26, 66, 99, 99, 99, 99, 24, 26, 56, 99, 99, 99, 99, 99,
  47, 66, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99,
  99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99, 99,
] as const;

/** The 64 steps at a quality of 1 to 100, scaled as the Independent JPEG Group's coder does (common practice). */
export function stepsAt(quality: number, of: 'luminance' | 'chrominance'): Float64Array {
  const scale = quality < 50 ? 5000 / quality : 200 - 2 * quality;
  return Float64Array.from(of === 'luminance' ? LUMINANCE : CHROMINANCE, (step) =>
    Math.min(255, Math.max(1, Math.floor((step * scale + 50) / 100))),
  );
}
