/** How often every one of `counts.length` equal ranges of 0..1 occurs. */
export interface Histogram {
  readonly counts: Uint32Array;
  readonly total: number;
}

/** Histogram of samples 0..1; what lies outside counts at the ends. @param step takes every n-th sample */
export function histogramOf(
  values: ArrayLike<number>,
  bins: number,
  start = 0,
  step = 1,
  white = 1,
): Histogram {
  const counts = new Uint32Array(bins);
  let total = 0;
  const scale = bins / white;
  for (let i = start; i < values.length; i += step) {
    const k = Math.floor(values[i]! * scale);
    counts[k < 0 ? 0 : k >= bins ? bins - 1 : k]!++;
    total++;
  }
  return { counts, total };
}

/** The value 0..1 below which the share `share` of all samples lies, evenly spread within its range. */
export function quantileOf({ counts, total }: Histogram, share: number): number {
  const wanted = share * total;
  let sum = 0;
  for (let k = 0; k < counts.length; k++) {
    const n = counts[k]!;
    if (n && sum + n >= wanted) return (k + Math.max(0, wanted - sum) / n) / counts.length;
    sum += n;
  }
  return 1;
}

/** Share of the samples that levels would send to black and to white. */
export function clippedBy(
  histogram: Histogram,
  black: number,
  white: number,
): { black: number; white: number } {
  const { counts, total } = histogram;
  let [low, high] = [0, 0];
  counts.forEach((n, k) => {
    if ((k + 1) / counts.length <= black) low += n;
    if (k / counts.length >= white) high += n;
  });
  return { black: total ? low / total : 0, white: total ? high / total : 0 };
}
