/**
 * The unconnected parts of a mask (pixels that touch at a corner belong together).
 * @returns the pixels of each part, in reading order
 */
export function partsOf(mask: Uint8Array, width: number): Int32Array[] {
  const height = mask.length / width;
  const seen = new Uint8Array(mask.length);
  const parts: Int32Array[] = [];
  const stack: number[] = [];
  for (let first = 0; first < mask.length; first++) {
    if (!mask[first] || seen[first]) continue;
    const pixels: number[] = [];
    seen[first] = 1;
    stack.push(first);
    while (stack.length) {
      const p = stack.pop()!;
      pixels.push(p);
      const x = p % width;
      const y = (p / width) | 0;
      for (let b = Math.max(0, y - 1); b <= Math.min(height - 1, y + 1); b++)
        for (let a = Math.max(0, x - 1); a <= Math.min(width - 1, x + 1); a++) {
          const q = b * width + a;
          if (!mask[q] || seen[q]) continue;
          seen[q] = 1;
          stack.push(q);
        }
    }
    parts.push(Int32Array.from(pixels).sort());
  }
  return parts;
}
