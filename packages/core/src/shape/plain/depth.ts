const FAR = 1e6;
const DIAGONAL = 4 / 3;

/** Twin of depths in kernels/shape.ts: the definition the kernel is held to. @param hole 1 = inside, 0 = outside */
export function depthsPlainly(hole: Uint8Array, width: number, height: number): Float32Array {
  const d = new Float32Array(hole.length);
  // What lies outside, most of nearly every window, is skipped by the engine's own search.
  for (let p = hole.indexOf(1); p >= 0; p = hole.indexOf(1, p))
    for (; hole[p]; p++) d[p] = fromAbove(d, p, width);
  const last = width * (height - 1);
  for (let p = hole.lastIndexOf(1); p >= 0; p = p < 0 ? p : hole.lastIndexOf(1, p))
    for (; hole[p]; p--) d[p] = fromBelow(d, p, width, last);
  return d;
}

function fromAbove(d: Float32Array, p: number, width: number): number {
  const x = p % width;
  let least = x > 0 ? Math.min(FAR, d[p - 1]! + 1) : FAR;
  if (p >= width) {
    least = Math.min(least, d[p - width]! + 1);
    if (x > 0) least = Math.min(least, d[p - width - 1]! + DIAGONAL);
    if (x + 1 < width) least = Math.min(least, d[p - width + 1]! + DIAGONAL);
  }
  return least;
}

/** @param last first pixel of the last row */
function fromBelow(d: Float32Array, p: number, width: number, last: number): number {
  const x = p % width;
  let least = d[p]!;
  if (x + 1 < width) least = Math.min(least, d[p + 1]! + 1);
  if (p < last) {
    least = Math.min(least, d[p + width]! + 1);
    if (x + 1 < width) least = Math.min(least, d[p + width + 1]! + DIAGONAL);
    if (x > 0) least = Math.min(least, d[p + width - 1]! + DIAGONAL);
  }
  return least;
}
