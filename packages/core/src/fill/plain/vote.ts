import type { Field } from '../field.js';
import { HALF } from '../level.js';
import type { Voters } from '../vote.js';

const LEAST_SCALE = 49 * 64;
const single = Math.fround;

/** Twin of gather in kernels/fill/vote.ts: single precision, operation by operation. */
function gather(
  field: Field,
  p: number,
  sharpness: number,
  among: Voters,
): { from: number; weight: number }[] {
  const { level, number, match, distance, trust } = field;
  const { width, height } = level;
  const x = p % width;
  const y = Math.floor(p / width);
  const over: { i: number; from: number }[] = [];
  for (let b = Math.max(y - HALF, HALF); b <= Math.min(y + HALF, height - HALF - 1); b++)
    for (let a = Math.max(x - HALF, HALF); a <= Math.min(x + HALF, width - HALF - 1); a++) {
      if (among === 'half' && ((a ^ b) & 1) === 1) continue;
      const q = b * width + a;
      const i = number[q]!;
      if (i >= 0) over.push({ i, from: match[i]! - (q - p) });
    }
  const least = Math.min(...over.map(({ i }) => distance[i]!));
  const sum = over.reduce((all, { i }) => all + distance[i]!, 0);
  const share = single(1 / Math.max((sum / over.length) * sharpness, LEAST_SCALE * sharpness));
  return over.map(({ i, from }) => ({
    from,
    weight: single(trust[i]! / steep(single(single(distance[i]! - least) * share))),
  }));
}

/** (1 + t/8 + t^2/128)^8. */
function steep(t: number): number {
  const line = single(1 + single(t * 0.125));
  let base = single(line + single(single(t * t) * 0.0078125));
  for (let k = 0; k < 3; k++) base = single(base * base);
  return base;
}

/** Twin of vote in kernels/fill/vote.ts: the definition the kernel is held to. */
export function votePlainly(field: Field, sharpness: number, among: Voters): void {
  const { pixels } = field.level;
  for (const p of field.holes) {
    const over = gather(field, p, sharpness, among);
    if (!over.length) continue;
    let total = 0;
    const sum = [0, 0, 0, 0];
    for (const { from, weight } of over) {
      total = single(total + weight);
      for (let c = 0; c < 4; c++) sum[c] = single(sum[c]! + single(weight * pixels[4 * from + c]!));
    }
    for (let c = 0; c < 4; c++)
      pixels[4 * p + c] = Math.floor(single(single(sum[c]! / total) + 0.5));
  }
}

/** Twin of agree in kernels/fill/vote.ts. */
export function agreePlainly(field: Field, sharpness: number): number[] {
  const { hole, banned } = field.level;
  return Array.from(field.holes, (p) => {
    const votes = new Map<number, number>();
    for (const { from, weight } of gather(field, p, sharpness, 'all')) {
      if (hole[from] || banned[from]) continue;
      votes.set(from, single((votes.get(from) ?? 0) + weight));
    }
    let best = -1;
    for (const [from, weight] of votes) if (best < 0 || weight > votes.get(best)!) best = from;
    return best;
  });
}
