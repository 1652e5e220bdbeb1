/** Running median: over every value and so many on either side, fewer at the ends. */
export function middleOver(values: Float32Array, reach: number): Float32Array {
  return values.map((_, i) => {
    const part = values.slice(Math.max(0, i - reach), i + reach + 1).sort();
    return part[part.length >> 1]!;
  });
}
