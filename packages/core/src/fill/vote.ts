import type { Field } from './field.js';
import { HALF } from './level.js';

const SIDE = 2 * HALF + 1;

/**
 * Every hole pixel becomes the weighted mean of what the patches over it say (Wexler, Shechtman, Irani,
 * "Space-Time Completion of Video", PAMI 29(3), 2007). The weight falls with a patch's difference and with
 * its depth in the hole.
 * @param sharpness scale of the fall, as a share of the mean difference: the smaller, the fewer patches count
 */
export function vote(field: Field, sharpness: number): void {
  const { kernel, level, number, match, distance, trust, holes, scratch } = field;
  kernel.vote(
    level.pixels.byteOffset,
    number.byteOffset,
    match.byteOffset,
    distance.byteOffset,
    trust.byteOffset,
    holes.byteOffset,
    scratch.byteOffset,
    level.width,
    level.height,
    holes.length,
    sharpness,
  );
}

/** Twin of {@link vote} in plain TypeScript: the definition the kernel is held to. */
export function votePlainly(field: Field, sharpness: number): void {
  const { level, number, match, distance, trust, holes } = field;
  const { width, height, pixels } = level;
  const covering = new Int32Array(SIDE * SIDE);
  const shifts = new Int32Array(SIDE * SIDE);
  for (let k = 0; k < holes.length; k++) {
    const p = holes[k]!;
    const x = p % width;
    const y = (p / width) | 0;
    let count = 0;
    let least = Infinity;
    let mean = 0;
    for (let dy = -HALF; dy <= HALF; dy++) {
      if (y + dy < HALF || y + dy >= height - HALF) continue;
      for (let dx = -HALF; dx <= HALF; dx++) {
        if (x + dx < HALF || x + dx >= width - HALF) continue;
        const shift = dy * width + dx;
        const i = number[p + shift]!;
        if (i < 0) continue;
        shifts[count] = shift;
        covering[count++] = i;
        mean += distance[i]!;
        if (distance[i]! < least) least = distance[i]!;
      }
    }
    if (!count) continue;
    const scale = Math.max((mean / count) * sharpness, SIDE * SIDE * 4 * sharpness);
    let weight = 0;
    let r = 0;
    let g = 0;
    let b = 0;
    let t = 0;
    for (let m = 0; m < count; m++) {
      const i = covering[m]!;
      const w = trust[i]! * fallOff((distance[i]! - least) / scale);
      const at = 4 * (match[i]! - shifts[m]!);
      weight += w;
      r += w * pixels[at]!;
      g += w * pixels[at + 1]!;
      b += w * pixels[at + 2]!;
      t += w * pixels[at + 3]!;
    }
    pixels[4 * p] = r / weight + 0.5;
    pixels[4 * p + 1] = g / weight + 0.5;
    pixels[4 * p + 2] = b / weight + 0.5;
    pixels[4 * p + 3] = t / weight + 0.5;
  }
}

/** Stands in for exp(-t), t >= 0, in exact arithmetic: (1 + t/8 + t^2/128)^-8. */
export function fallOff(t: number): number {
  const base = 1 + t / 8 + (t * t) / 128;
  const two = base * base;
  const four = two * two;
  return 1 / (four * four);
}
