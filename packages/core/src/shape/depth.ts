/** Chamfer distance into a mask, px; 0 outside, the window's border counts as inside (Borgefors 1986, weights 1 and 4/3). */
export function depthsOf(hole: Uint8Array, width: number, height: number): Float32Array {
  const far = 1e6;
  const diagonal = 4 / 3;
  const d = new Float32Array(hole.length);
  const inside: number[] = [];
  for (let p = 0; p < hole.length; p++) {
    if (!hole[p]) continue;
    d[p] = far;
    inside.push(p);
  }
  const at = (x: number, y: number): number =>
    x < 0 || y < 0 || x >= width || y >= height ? far : d[y * width + x]!;
  for (const p of inside) {
    const x = p % width;
    const y = Math.floor(p / width);
    d[p] = Math.min(
      at(x - 1, y) + 1,
      at(x, y - 1) + 1,
      at(x - 1, y - 1) + diagonal,
      at(x + 1, y - 1) + diagonal,
    );
  }
  for (const p of inside.reverse()) {
    const x = p % width;
    const y = Math.floor(p / width);
    d[p] = Math.min(
      d[p]!,
      at(x + 1, y) + 1,
      at(x, y + 1) + 1,
      at(x + 1, y + 1) + diagonal,
      at(x - 1, y + 1) + diagonal,
    );
  }
  return d;
}

/** Greatest depth of a mask, px. */
export function deepestOf(mask: Uint8Array, width: number, height: number): number {
  let most = 0;
  for (const d of depthsOf(mask, width, height)) if (d > most && d < 1e6) most = d;
  return most;
}
