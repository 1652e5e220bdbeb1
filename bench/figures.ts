/** Value below which a share of the sorted values lies. */
export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.ceil(share * sorted.length) - 1)]!;
}

/** Prints median, p95 and greatest of times in ms. */
export function printTimes(what: string, ms: readonly number[], limit?: number): void {
  const show = (share: number): string => quantile(ms, share).toFixed(0).padStart(6);
  const against = limit ? `   (bar: p95 ${limit} ms)` : '';
  console.log(
    `${what.padEnd(46)} median ${show(0.5)}  p95 ${show(0.95)}  max ${show(1)} ms  n ${ms.length}${against}`,
  );
}
