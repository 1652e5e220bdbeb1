import type { Curve } from './curves.js';
import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';

/** What is measured across a curve, point by point; px and grey levels of the plane it was found in. */
export interface Profile {
  /** Grey on the crest. */
  readonly crest: Float32Array;
  /** Grey of the two sides. */
  readonly left: Float32Array;
  readonly right: Float32Array;
  /** How far the crest stands out from the nearer side; negative where it does not. */
  readonly stands: Float32Array;
  /** Width at half height, px. */
  readonly width: Float32Array;
}

/** Sides are read so far out, px from the crest. */
const SIDE = { from: 3, to: 5.5 } as const;
const STEP = 0.5;
const REACH = SIDE.to / STEP;

/** Reads across a curve: crest, sides, width. */
export function profileOf(plane: Plane, curve: Curve): Profile {
  const { xs, ys, polarity } = curve;
  const n = xs.length;
  const profile: Profile = {
    crest: new Float32Array(n),
    left: new Float32Array(n),
    right: new Float32Array(n),
    stands: new Float32Array(n),
    width: new Float32Array(n),
  };
  const across = new Float32Array(2 * REACH + 1);
  for (let i = 0; i < n; i++) {
    const a = Math.max(0, i - 3);
    const b = Math.min(n - 1, i + 3);
    const [tx, ty] = [xs[b]! - xs[a]!, ys[b]! - ys[a]!];
    const d = Math.sqrt(tx * tx + ty * ty) || 1;
    const [nx, ny] = [-ty / d, tx / d];
    for (let k = -REACH; k <= REACH; k++)
      across[k + REACH] = sampleAt(plane, xs[i]! + k * STEP * nx, ys[i]! + k * STEP * ny);
    const crest = (across[REACH - 1]! + across[REACH]! + across[REACH + 1]!) / 3;
    const left = sideOf(across, -1);
    const right = sideOf(across, 1);
    profile.crest[i] = crest;
    profile.left[i] = left;
    profile.right[i] = right;
    profile.stands[i] = Math.min(polarity * (crest - left), polarity * (crest - right));
    profile.width[i] = flank(across, crest, left, -1) + flank(across, crest, right, 1);
  }
  return profile;
}

function sideOf(across: Float32Array, way: 1 | -1): number {
  let sum = 0;
  let count = 0;
  for (let k = SIDE.from / STEP; k <= REACH; k++, count++) sum += across[REACH + way * k]!;
  return sum / count;
}

/** How far out a profile falls to half its height on one side, px. */
function flank(across: Float32Array, crest: number, side: number, way: 1 | -1): number {
  const half = (crest + side) / 2;
  const sign = Math.sign(crest - side);
  let before = across[REACH]!;
  for (let k = 1; k <= REACH; k++) {
    const v = across[REACH + way * k]!;
    if (sign * (v - half) <= 0) {
      const t = before === v ? 0 : (before - half) / (before - v);
      return STEP * (k - 1 + Math.min(1, Math.max(0, t)));
    }
    before = v;
  }
  return SIDE.from;
}
