/**
 * The unconnected parts of a mask.
 * @param corners whether pixels that touch only at a corner belong together
 * @returns the pixels of each part, in reading order
 */
export function partsOf(mask: Uint8Array, width: number, corners = true): Int32Array[] {
  const height = mask.length / width;
  const open = mask.slice();
  const parts: Int32Array[] = [];
  // Grows to the largest part and is used again for every one.
  let pixels = new Int32Array(1024);
  for (let first = 0; first < mask.length; first++) {
    if (!open[first]) continue;
    open[first] = 0;
    pixels[0] = first;
    let count = 1;
    for (let k = 0; k < count; k++) {
      const p = pixels[k]!;
      const x = p % width;
      const y = (p / width) | 0;
      if (count + 8 > pixels.length) {
        const more = new Int32Array(2 * pixels.length);
        more.set(pixels);
        pixels = more;
      }
      for (let b = Math.max(0, y - 1); b <= Math.min(height - 1, y + 1); b++)
        for (let a = Math.max(0, x - 1); a <= Math.min(width - 1, x + 1); a++) {
          const q = b * width + a;
          if (!open[q] || (!corners && a !== x && b !== y)) continue;
          open[q] = 0;
          pixels[count++] = q;
        }
    }
    parts.push(pixels.slice(0, count).sort());
  }
  return parts;
}
