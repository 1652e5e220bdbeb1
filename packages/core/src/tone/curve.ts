import type { Point } from '../shape/site.js';

/**
 * A smooth curve through points that never overshoots between them (Fritsch, Carlson, "Monotone Piecewise Cubic
 * Interpolation", SIAM J. Numer. Anal. 17(2), 1980); level before the first point and after the last.
 * @param points [in, out], at least one; sorted by `in` here
 */
export function curveThrough(points: readonly Point[]): (x: number) => number {
  const sorted = [...points]
    .sort((a, b) => a[0] - b[0])
    .filter((p, k, all) => k === 0 || p[0] > all[k - 1]![0]);
  const n = sorted.length;
  if (n === 1) return () => sorted[0]![1];
  const slopes = sorted.slice(1).map((p, k) => (p[1] - sorted[k]![1]) / (p[0] - sorted[k]![0]));
  const tangents = sorted.map((_, k) => {
    if (k === 0) return slopes[0]!;
    if (k === n - 1) return slopes[n - 2]!;
    const [a, b] = [slopes[k - 1]!, slopes[k]!];
    return a * b <= 0 ? 0 : (a + b) / 2;
  });
  slopes.forEach((slope, k) => {
    if (slope === 0) return void (tangents[k] = tangents[k + 1] = 0);
    const [a, b] = [tangents[k]! / slope, tangents[k + 1]! / slope];
    const size = Math.sqrt(a * a + b * b);
    if (size <= 3) return;
    tangents[k] = (3 * a * slope) / size;
    tangents[k + 1] = (3 * b * slope) / size;
  });
  return (x) => {
    if (x <= sorted[0]![0]) return sorted[0]![1];
    if (x >= sorted[n - 1]![0]) return sorted[n - 1]![1];
    let k = 0;
    while (x > sorted[k + 1]![0]) k++;
    const h = sorted[k + 1]![0] - sorted[k]![0];
    const t = (x - sorted[k]![0]) / h;
    const u = 1 - t;
    return (
      u * u * (1 + 2 * t) * sorted[k]![1] +
      t * t * (3 - 2 * t) * sorted[k + 1]![1] +
      t * u * u * h * tangents[k]! -
      t * t * u * h * tangents[k + 1]!
    );
  };
}
