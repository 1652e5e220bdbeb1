import { seededRandom } from '../../random/random.js';
import type { Range } from '../../task/crew.js';
import type { Field } from '../field.js';
import { HALF } from '../level.js';
import type { Sweep } from '../match.js';
import type { Farness } from '../farness.js';
import { ANYWHERE } from '../farness.js';
import { sweepRanges } from '../match.js';

/** Squared difference of the patches centred on pixels a and b; at least `limit` as soon as it is reached. */
export function patchDifference(
  pixels: Int16Array,
  stride: number,
  a: number,
  b: number,
  limit: number,
): number {
  let i = (a - HALF) * 4 - HALF * stride;
  let j = (b - HALF) * 4 - HALF * stride;
  let sum = 0;
  for (let y = 0; y <= 2 * HALF; y++) {
    for (let k = 0; k < 8 * HALF + 4; k += 4) {
      const r = pixels[i + k]! - pixels[j + k]!;
      const g = pixels[i + k + 1]! - pixels[j + k + 1]!;
      const b = pixels[i + k + 2]! - pixels[j + k + 2]!;
      const t = pixels[i + k + 3]! - pixels[j + k + 3]!;
      sum += r * r + g * g + b * b + t * t;
    }
    if (sum >= limit) return sum;
    i += stride;
    j += stride;
  }
  return sum;
}

/** What a match of pixel a with b adds to its difference for being farther away than is free. */
function farCost(a: number, b: number, width: number, { free, rate }: Farness): number {
  const across = Math.abs((a % width) - (b % width));
  const down = Math.abs(Math.floor(a / width) - Math.floor(b / width));
  return rate * Math.max(0, across + down - free);
}

/** Twin of measure in kernels/fill/match.ts. */
export function measureMatchesPlainly(field: Field, farness: Farness = ANYWHERE): void {
  const { level, target, match, distance } = field;
  const stride = level.width * 4;
  for (let i = 0; i < target.length; i++)
    distance[i] =
      patchDifference(level.pixels, stride, target[i]!, match[i]!, Infinity) +
      farCost(target[i]!, match[i]!, level.width, farness);
}

/**
 * Twin of improve in kernels/fill/match.ts: the definition the kernel is held to. Chance is drawn anew from (seed,
 * pass, row, range), so the result depends on the ranges, not on the threads that run them.
 */
export function improveMatchesPlainly(field: Field, sweep: Sweep): void {
  for (const range of sweepRanges(field, sweep.pass)) improveRange(field, sweep, range);
}

function improveRange(
  field: Field,
  { pass, seed, fresh, reach, sheets, rows, farness }: Sweep,
  [from, to]: Range,
): void {
  const { level, source, number, target, match, distance } = field;
  const { width, height, pixels } = level;
  const stride = width * 4;
  const backwards = (pass & 1) === 1;
  const step = backwards ? 1 : -1;
  let row = -1;
  let random = seededRandom(seed);
  for (let k = from; k < to; k++) {
    const i = backwards ? from + to - 1 - k : k;
    const p = target[i]!;
    const y = (p / width) | 0;
    if (y !== row) {
      row = y;
      random = seededRandom(Math.imul(seed, 0x9e3779b1) ^ (pass * 7919 + y * 104729 + from * 31));
    }
    let best = match[i]!;
    const costOf = (q: number, limit: number): number => {
      const far = farCost(p, q, width, farness);
      return far + patchDifference(pixels, stride, p, q, limit - far);
    };
    let least = fresh ? costOf(best, Infinity) : distance[i]!;

    for (let side = 0; side < 2; side++) {
      const shift = side === 0 ? step : step * width;
      const j = number[p + shift]!;
      if (j < from || j >= to) continue;
      const candidate = match[j]! - shift;
      if (candidate === best || !source[candidate]) continue;
      const d = costOf(candidate, least);
      if (d < least) {
        least = d;
        best = candidate;
      }
    }
    const attempt = (cx: number, cy: number): void => {
      if (cx < HALF || cy < HALF || cx >= width - HALF || cy >= height - HALF) return;
      const candidate = cy * width + cx;
      if (candidate === best || !source[candidate]) return;
      const d = costOf(candidate, least);
      if (d >= least) return;
      least = d;
      best = candidate;
    };
    if (sheets > 0) {
      const cx = (p % width) + random.between(-reach, reach);
      attempt(cx, y + rows * random.between(0, sheets) + random.between(-reach, reach));
    }
    const widest = (((p % width) + y + pass) & 1) === 0 ? reach : 0;
    for (let radius = widest; radius >= 1; radius >>= 1) {
      const cx = (best % width) + random.between(-radius, radius);
      attempt(cx, ((best / width) | 0) + random.between(-radius, radius));
    }
    match[i] = best;
    distance[i] = least;
  }
}
