import { toEncoded, toLinear } from '../colour/srgb.js';
import type { Plane } from '../raster/plane.js';
import type { Size } from './cameras.js';

/** What takes a frame's exposure and its lens's falloff off. */
export interface Evening {
  /** What the linear samples are multiplied by, a channel. */
  readonly gains: readonly number[];
  /** Logarithm of the light at r from the middle, r = 1 in a corner: first r^2 + second r^4. */
  readonly falloff: readonly [number, number];
}

/** Steps of the tables, between which values are taken to be straight. */
export const STEPS = 2048;
export const RINGS = 1024;
/** Roots run from 0 to here. */
const REACH = 1.5;
const ENCODED = Float32Array.from({ length: STEPS + 2 }, (_, i) =>
  toEncoded((REACH * (i / STEPS)) ** 2),
);
const ROOTS = rootsOfCodes(255);

/** Square roots of the linear values of all codes up to `white`; the root keeps the dark end fine enough. */
export function rootsOfCodes(white: number): Float32Array {
  return Float32Array.from({ length: white + 1 }, (_, code) => Math.sqrt(toLinear(code / white)));
}

/** Encoded values, 0..1, of the roots 0..REACH in STEPS steps, and one more. */
export function encodedRoots(): Float32Array {
  return ENCODED;
}

/** What roots are multiplied by to take the falloff off, from the middle to the corner in RINGS steps of r^2: steps of the encoded ones. */
export function liftsOf([first, second]: Evening['falloff']): Float32Array {
  return Float32Array.from({ length: RINGS + 2 }, (_, k) => {
    const r = k / RINGS;
    return (Math.sqrt(Math.exp(-(first + second * r) * r)) / REACH) * STEPS;
  });
}

/** What roots are multiplied by to take the exposure off, a channel. */
export function rootsOfGains(gains: readonly number[], channels: number): Float32Array {
  return Float32Array.from({ length: channels }, (_, c) => Math.sqrt(gains[c] ?? gains[0]!));
}

/** The same done to a frame's planes, 0..255, of whatever size. @param size of the frame itself */
export function evenedPlanes(
  planes: readonly Plane[],
  size: Size,
  { gains, falloff }: Evening,
): Plane[] {
  const lifts = liftsOf(falloff);
  const roots = rootsOfGains(gains, planes.length);
  return planes.map(({ width, height, values }, c) => {
    const out = new Float32Array(values.length);
    const [sx, sy] = [size.width / width, size.height / height];
    const by = (4 * RINGS) / (size.width ** 2 + size.height ** 2);
    for (let y = 0, p = 0; y < height; y++)
      for (let x = 0; x < width; x++, p++) {
        const [u, v] = [(x - (width - 1) / 2) * sx, (y - (height - 1) / 2) * sy];
        const lift = between(lifts, Math.min(RINGS, (u * u + v * v) * by));
        const root = between(ROOTS, values[p]!) * lift * roots[c]!;
        out[p] = 255 * between(ENCODED, Math.min(STEPS, root));
      }
    return { width, height, values: out };
  });
}

function between(table: Float32Array, at: number): number {
  const i = at | 0;
  const low = table[i]!;
  return low + (at - i) * ((table[i + 1] ?? low) - low);
}
