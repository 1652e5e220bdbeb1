import { OUTSIDE } from '../atlas.js';
import type { Level } from '../level.js';
import { HALF, MOST } from '../level.js';

const REACH = 2;

/** Twin of texture in kernels/fill/texture.ts. */
export function addTexturePlainly({ width, height, pixels, hole }: Level, weight: number): void {
  const n = width * height;
  const luma = (p: number): number =>
    (77 * pixels[4 * p]! + 150 * pixels[4 * p + 1]! + 29 * pixels[4 * p + 2]! + 128) >> 8;
  const step = new Int32Array(n);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (hole[p]) continue;
      if (x + 1 < width && !hole[p + 1]) step[p]! += Math.abs(luma(p + 1) - luma(p));
      if (y + 1 < height && !hole[p + width]) step[p]! += Math.abs(luma(p + width) - luma(p));
    }
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      if (hole[p]) continue;
      let sum = 0;
      let count = 0;
      for (let b = Math.max(0, y - REACH); b <= Math.min(height - 1, y + REACH); b++)
        for (let a = Math.max(0, x - REACH); a <= Math.min(width - 1, x + REACH); a++) {
          sum += step[b * width + a]!;
          count += 1 - hole[b * width + a]!;
        }
      pixels[4 * p + 3] = Math.min(MOST, Math.floor((weight * sum) / Math.max(1, count)));
    }
}

/** Twin of halve in kernels/fill/prepare.ts. */
export function halvePlainly(fine: Level, small: Level): void {
  for (let y = 0, q = 0; y < small.height; y++)
    for (let x = 0; x < small.width; x++, q++) {
      const four = [0, 1, fine.width, fine.width + 1].map((d) => 2 * y * fine.width + 2 * x + d);
      const known = four.filter((p) => !fine.hole[p]);
      small.banned[q] = four.reduce((all, p) => all | fine.banned[p]!, 0);
      small.hole[q] = known.length < 2 ? 1 : 0;
      if (known.length < 2) continue;
      for (let c = 0; c < 4; c++) {
        const sum = known.reduce((all, p) => all + fine.pixels[4 * p + c]!, 0);
        small.pixels[4 * q + c] = Math.floor((sum + (known.length >> 1)) / known.length);
      }
    }
}

/** Twin of survey in kernels/fill/prepare.ts. */
export function surveyPlainly({ width, height, hole, banned }: Level) {
  const source: number[] = [];
  const target: number[] = [];
  for (let y = HALF; y < height - HALF; y++)
    for (let x = HALF; x < width - HALF; x++) {
      let open = 0;
      let forbidden = 0;
      for (let b = y - HALF; b <= y + HALF; b++)
        for (let a = x - HALF; a <= x + HALF; a++) {
          open += hole[b * width + a]!;
          forbidden += banned[b * width + a]!;
        }
      if (open && forbidden < OUTSIDE) target.push(y * width + x);
      else if (!open && !forbidden) source.push(y * width + x);
    }
  return { source, target };
}
