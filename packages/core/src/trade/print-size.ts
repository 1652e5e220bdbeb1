const MM = 25.4;

/** Sides of a print. */
export interface PrintSize {
  readonly inches: readonly [number, number];
  readonly mm: readonly [number, number];
}

/** The print that pixels make at a density: inches = px / ppi. @param ppi pixels an inch, > 0 */
export function printSize(width: number, height: number, ppi: number): PrintSize {
  const inches = [width / ppi, height / ppi] as const;
  return { inches, mm: [inches[0] * MM, inches[1] * MM] };
}

/** The density a print of a wanted width leaves. @param inches > 0 */
export function densityFor(width: number, inches: number): number {
  return width / inches;
}

/** The density to scan at: output density times enlargement. */
export function scanDensity(outputPpi: number, enlargement: number): number {
  return outputPpi * enlargement;
}

/** Bytes of the bare samples. @param bits 8 or 16 a channel */
export function bytesOf(width: number, height: number, channels: number, bits: number): number {
  return (width * height * channels * bits) / 8;
}
