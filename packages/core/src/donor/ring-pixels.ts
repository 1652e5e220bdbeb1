/** Pixels no farther than `wide` px from the site, in reading order: neither of it nor banned. */
export function ringOf(
  site: Uint8Array,
  banned: Uint8Array,
  width: number,
  height: number,
  wide: number,
): number[] {
  const marked = new Uint8Array(site.length);
  for (let p = 0; p < site.length; p++) {
    if (!site[p]) continue;
    const x = p % width;
    const y = (p / width) | 0;
    const inner =
      x > 0 &&
      y > 0 &&
      x + 1 < width &&
      y + 1 < height &&
      site[p - 1] &&
      site[p + 1] &&
      site[p - width] &&
      site[p + width];
    if (inner) continue;
    for (let b = Math.max(0, y - wide); b <= Math.min(height - 1, y + wide); b++)
      for (let a = Math.max(0, x - wide); a <= Math.min(width - 1, x + wide); a++)
        marked[b * width + a] = 1;
  }
  const ring: number[] = [];
  for (let p = 0; p < site.length; p++) if (marked[p] && !site[p] && !banned[p]) ring.push(p);
  return ring;
}

export function pixelsOf(site: Uint8Array): number[] {
  const pixels: number[] = [];
  site.forEach((v, p) => v && pixels.push(p));
  return pixels;
}

/** The pixels in an order whose beginnings are spread over the whole (multiples of a step that has no common factor). */
export function scattered(pixels: number[]): number[] {
  const n = pixels.length;
  let step = Math.max(1, Math.floor(n * 0.382));
  const common = (a: number, b: number): number => (b ? common(b, a % b) : a);
  while (common(step, n) > 1) step++;
  return pixels.map((_, k) => pixels[(k * step) % n]!);
}

/** At most so many of the pixels, evenly spread. */
export function thin(pixels: number[], most: number): number[] {
  const step = pixels.length / most;
  if (step <= 1) return pixels;
  return Array.from({ length: most }, (_, k) => pixels[Math.floor(k * step)]!);
}
