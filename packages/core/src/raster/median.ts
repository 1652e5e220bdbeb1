/** The middle value; 0 of none. The list is not changed. */
export function medianOf(values: readonly number[]): number {
  if (!values.length) return 0;
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length & 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
