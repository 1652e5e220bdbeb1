/** Every set pixel and those within a square of side 2 by + 1 round it. */
export function widened(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  const rows = new Uint8Array(mask.length);
  for (let y = 0; y < height; y++)
    for (let x = 0, last = -Infinity, p = y * width; x < width + by; x++) {
      if (x < width && mask[p + x]) last = x;
      if (x - by >= 0 && last >= x - 2 * by) rows[p + x - by] = 1;
    }
  const out = new Uint8Array(mask.length);
  for (let x = 0; x < width; x++)
    for (let y = 0, last = -Infinity; y < height + by; y++) {
      if (y < height && rows[y * width + x]) last = y;
      if (y - by >= 0 && last >= y - 2 * by) out[(y - by) * width + x] = 1;
    }
  return out;
}
