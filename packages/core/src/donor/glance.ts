import { openArena } from '../wasm/arena.js';
import { DONOR_KERNEL } from './donor-kernel.js';
import type { RingData } from './ring.js';
import { MATCHED_TONE, UNKNOWN } from './ring.js';
import type { Scene } from './scene.js';
import { VALUES } from './scene.js';

/** Places at a glance lie so far apart, px. */
export const STRIDE = 2;
/** Places done at a time, and the planes: the values of a pixel and whether it is blocked. */
const LANES = 4;
const PLANES = VALUES + 1;
/** Values of a ring pixel: what is wanted and what the slopes count. */
const OWN = VALUES + 2;

/** A grid of places, {@link STRIDE} px apart. */
export interface Places {
  /** The first one's shift, px. */
  readonly dx: number;
  readonly dy: number;
  readonly across: number;
  readonly down: number;
}

interface DonorKernel {
  glance(
    ...args: [
      planes: number,
      stride: number,
      half: number,
      offsets: number,
      ring: number,
      n: number,
      xx: number,
      xy: number,
      yx: number,
      yy: number,
      unknown: number,
      keep: number,
      out: number,
      across: number,
      down: number,
    ]
  ): void;
}

/**
 * Prepares a scene for glances: every row's even columns lie before its odd ones' plane, so that places next to each
 * other on the grid read values next to each other.
 * @param most ring pixels and places of one glance at most
 * @returns mean squared differences of a ring and its images, place by place, in rows of {@link rowOf} values. Good until the
 * next glance; every image must lie in the window.
 */
export function glancesOver(
  { window: { width, height }, tones, blocked }: Scene,
  most: { readonly ring: number; readonly across: number; readonly down: number },
): (ring: RingData, places: Places) => Float32Array {
  const half = (width + 1) >> 1;
  const parity = half * height;
  const stride = 2 * parity;
  const room = rowOf(most.across) * most.down;
  const floats = PLANES * stride + LANES + OWN * most.ring + room;
  const arena = openArena<DonorKernel>(DONOR_KERNEL, 4 * (floats + most.ring), 4, { once: true });
  const planes = arena.floats(PLANES * stride + LANES);
  const offsets = arena.words(most.ring);
  const own = arena.floats(OWN * most.ring);
  const out = arena.floats(room);
  for (let y = 0; y < height; y++)
    for (let odd = 0; odd < 2; odd++) {
      let cell = odd * parity + y * half;
      for (let x = odd, p = y * width + odd; x < width; x += 2, p += 2, cell++) {
        const q = VALUES * p;
        planes[cell] = tones[q]!;
        planes[cell + stride] = tones[q + 1]!;
        planes[cell + 2 * stride] = tones[q + 2]!;
        planes[cell + 3 * stride] = tones[q + 3]!;
        planes[cell + 4 * stride] = tones[q + 4]!;
        planes[cell + 5 * stride] = blocked[p]!;
      }
    }
  return ({ map, image, wanted, known, matched }, { dx, dy, across, down }) => {
    const n = image.length;
    for (let k = 0; k < n; k++) {
      const at = image[k]! + dy * width + dx;
      const x = at % width;
      const y = (at / width) | 0;
      offsets[k] = (x & 1) * parity + y * half + (x >> 1);
      own.set(wanted.subarray(VALUES * k, VALUES * (k + 1)), OWN * k);
      own.set(known.subarray(2 * k, 2 * k + 2), OWN * k + VALUES);
    }
    arena.kernel.glance(
      planes.byteOffset,
      stride,
      half,
      offsets.byteOffset,
      own.byteOffset,
      n,
      map.a,
      map.b,
      map.d,
      map.e,
      UNKNOWN,
      matched ? 1 - MATCHED_TONE : 0,
      out.byteOffset,
      rowOf(across),
      down,
    );
    return out;
  };
}

/** Values of a row of places: whole lanes. */
export function rowOf(across: number): number {
  return Math.ceil(across / LANES) * LANES;
}
