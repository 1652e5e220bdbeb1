/** Chamfer distance into a mask, px; 0 outside, the window's border counts as inside (Borgefors 1986, weights 1 and 4/3). */
export function depthsOf(hole: Uint8Array, width: number, height: number): Float32Array {
  const far = 1e6;
  const diagonal = 4 / 3;
  const d = new Float32Array(hole.length);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (!hole[p]) continue;
      let least = far;
      if (x > 0) least = Math.min(least, d[p - 1]! + 1);
      if (y > 0) {
        least = Math.min(least, d[p - width]! + 1);
        if (x > 0) least = Math.min(least, d[p - width - 1]! + diagonal);
        if (x + 1 < width) least = Math.min(least, d[p - width + 1]! + diagonal);
      }
      d[p] = least;
    }
  for (let y = height - 1, p = hole.length - 1; y >= 0; y--)
    for (let x = width - 1; x >= 0; x--, p--) {
      if (!hole[p]) continue;
      let least = d[p]!;
      if (x + 1 < width) least = Math.min(least, d[p + 1]! + 1);
      if (y + 1 < height) {
        least = Math.min(least, d[p + width]! + 1);
        if (x + 1 < width) least = Math.min(least, d[p + width + 1]! + diagonal);
        if (x > 0) least = Math.min(least, d[p + width - 1]! + diagonal);
      }
      d[p] = least;
    }
  return d;
}

/** Greatest depth of a mask, px. */
export function deepestOf(mask: Uint8Array, width: number, height: number): number {
  let most = 0;
  const depths = depthsOf(mask, width, height);
  for (let p = 0; p < depths.length; p++)
    if (depths[p]! > most && depths[p]! < 1e6) most = depths[p]!;
  return most;
}
