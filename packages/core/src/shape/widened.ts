/** Every set pixel and those within a square of side 2 by + 1 round it. */
export function widened(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const rows = new Uint8Array(mask.length);
  for (let p = mask.indexOf(1); p >= 0; p = mask.indexOf(1, p)) {
    const first = p - (p % width);
    let end = p;
    while (end < first + width && mask[end]) end++;
    rows.fill(1, Math.max(first, p - by), Math.min(first + width, end + by));
    p = end;
  }
  const out = new Uint8Array(mask.length);
  // How many rows down each column is still reached from above.
  const left = new Int32Array(width);
  for (let y = -by; y < height; y++)
    for (let x = 0, p = y * width; x < width; x++, p++) {
      if (y + by < height && rows[p + by * width]) left[x] = 2 * by + 1;
      else if (!left[x]) continue;
      if (y >= 0) out[p] = 1;
      left[x]!--;
    }
  return out;
}
