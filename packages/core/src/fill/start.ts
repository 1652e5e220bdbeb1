import type { Level } from './level.js';

/** First content of the hole at the coarsest level: peeled from the border inwards, each ring the mean of its known neighbours. */
export function peelInwards(level: Level, holes: Int32Array): void {
  const { width, height, pixels } = level;
  const unknown = Uint8Array.from(level.hole);
  let waiting: number[] = Array.from(holes);
  const sum = new Int32Array(4);
  while (waiting.length) {
    const ring: number[] = [];
    const rest: number[] = [];
    for (const p of waiting) {
      const x = p % width;
      const y = (p / width) | 0;
      sum.fill(0);
      let n = 0;
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue;
          const q = p + dy * width + dx;
          if (unknown[q]) continue;
          n++;
          for (let c = 0; c < 4; c++) sum[c]! += pixels[4 * q + c]!;
        }
      }
      if (n === 0) {
        rest.push(p);
        continue;
      }
      for (let c = 0; c < 4; c++) pixels[4 * p + c] = sum[c]! / n;
      ring.push(p);
    }
    if (!ring.length) return;
    for (const p of ring) unknown[p] = 0;
    waiting = rest;
  }
}
