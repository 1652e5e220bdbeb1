/**
 * Solves a small dense system by Gaussian elimination with partial pivoting. Both arguments are used up.
 * A pivot of nothing makes its unknown 0.
 */
export function solveSmall(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i]![k]!) > Math.abs(a[pivot]![k]!)) pivot = i;
    [a[k], a[pivot]] = [a[pivot]!, a[k]!];
    [b[k], b[pivot]] = [b[pivot]!, b[k]!];
    const top = a[k]![k]!;
    if (Math.abs(top) < 1e-300) continue;
    for (let i = k + 1; i < n; i++) {
      const share = a[i]![k]! / top;
      if (share === 0) continue;
      for (let j = k; j < n; j++) a[i]![j]! -= share * a[k]![j]!;
      b[i]! -= share * b[k]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let k = n - 1; k >= 0; k--) {
    let sum = b[k]!;
    for (let j = k + 1; j < n; j++) sum -= a[k]![j]! * x[j]!;
    x[k] = Math.abs(a[k]![k]!) < 1e-300 ? 0 : sum / a[k]![k]!;
  }
  return x;
}
