import { openArena } from '../wasm/arena.js';
import { DONOR_KERNEL } from './donor-kernel.js';
import type { Rect } from '../raster/rect.js';
import { frameOf, grow, intersect } from '../raster/rect.js';
import { SLOPES } from './ring.js';
import type { RingView } from './ring-view.js';
import { MATCHED_TONE, UNKNOWN } from './ring-view.js';
import type { Scene } from './scene.js';
import { VALUES } from './scene.js';

/** Places at a glance lie so far apart, px. */
export const STRIDE = 2;
/** Places done at a time, planes of pairs of values a picture has, and pairs of a ring pixel. */
const LANES = 4;
const PLANES = 3;
const OWN = 4;
/** Whole steps that a code of colour and of slope is told in. */
const STEPS = 2;
const STEEP = 6;
/** Ring pixels of a glance: the sums of so many differences fit 16 bits. */
export const MOST_RING = 64;

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
      unit: number,
      steep: number,
      unknown: number,
      keep: number,
      out: number,
      across: number,
      down: number,
    ]
  ): void;
}

/** A scene laid out for glances. */
export interface Glances {
  /**
   * Mean squared differences of a ring and its images, place by place, in rows of {@link rowOf} values. Good until the
   * next glance; every image must lie in the window.
   */
  at(view: RingView, places: Places): Float32Array;
  /** Takes in pixels that the scene has renewed. */
  renew(rect: Rect): void;
}

/**
 * Prepares a scene for glances: values in whole steps, every row's even columns before its odd ones' plane, so that
 * places next to each other on the grid read values next to each other. Good until the next scene is prepared.
 * @param most places of one glance at most; its ring has at most {@link MOST_RING} pixels
 */
export function glancesOver(
  scene: Scene,
  most: { readonly across: number; readonly down: number },
): Glances {
  const { width, height } = scene.window;
  const half = (width + 1) >> 1;
  const parity = half * height;
  const stride = 2 * parity;
  const room = rowOf(most.across) * most.down;
  const pairs = PLANES * stride + LANES + OWN * MOST_RING;
  const arena = openArena<DonorKernel>(DONOR_KERNEL, 4 * (pairs + room + MOST_RING), 4, {
    once: true,
  });
  const planes = arena.shorts(2 * (PLANES * stride + LANES));
  const offsets = arena.words(MOST_RING);
  const own = arena.shorts(2 * OWN * MOST_RING);
  const out = arena.floats(room);
  const frame = frameOf({ width, height });
  const lay = (rect: Rect): void => layOut(planes, scene, rect, half, parity);
  lay(frame);
  return {
    renew: (rect) => lay(intersect(grow(rect, 1), frame)),
    at({ ring, map, image }, { dx, dy, across, down }) {
      const n = image.length;
      const { a: xx, b: xy, d: yx, e: yy } = map;
      // Slopes are told as the image has them: turned back, and steeper where the donor is made smaller.
      const scale = 1 / (xx * xx + yx * yx);
      const turned = xx * xy !== 0 || xx * yx !== 0;
      for (let k = 0; k < n; k++) {
        const at = image[k]! + dy * width + dx;
        const x = at % width;
        const y = (at / width) | 0;
        offsets[k] = (x & 1) * parity + y * half + (x >> 1);
        const [r, g, b, u, v] = ring.wanted.subarray(VALUES * k, VALUES * (k + 1));
        const [known, seen] = [ring.known[2 * k]!, ring.known[2 * k + 1]!];
        const both = known && seen;
        own[8 * k] = Math.round(STEPS * r!);
        own[8 * k + 1] = Math.round(STEPS * g!);
        own[8 * k + 2] = Math.round(STEPS * b!);
        own[8 * k + 3] = -1;
        own[8 * k + 4] = Math.round(STEEP * scale * (xx * u! + xy * v!));
        own[8 * k + 5] = Math.round(STEEP * scale * (yx * u! + yy * v!));
        own[8 * k + 6] = (turned ? both : xx ? known : seen) ? -1 : 0;
        own[8 * k + 7] = (turned ? both : xx ? seen : known) ? -1 : 0;
      }
      arena.kernel.glance(
        planes.byteOffset,
        stride,
        half,
        offsets.byteOffset,
        own.byteOffset,
        n,
        1 / STEPS ** 2,
        SLOPES / STEEP ** 2 / scale,
        UNKNOWN,
        ring.matched ? 1 - MATCHED_TONE : 0,
        out.byteOffset,
        rowOf(across),
        down,
      );
      return out;
    },
  };
}

/** Lays a rectangle of the scene's values out. @param parity values of one plane's even columns */
function layOut(
  planes: Int16Array,
  { window: { width }, tones, blocked }: Scene,
  rect: Rect,
  half: number,
  parity: number,
): void {
  const plane = 4 * parity;
  for (let y = rect.y; y < rect.y + rect.height; y++)
    for (let x = rect.x, p = y * width + x, q = VALUES * p; x < rect.x + rect.width; x++, p++) {
      const cell = 2 * ((x & 1) * parity + y * half + (x >> 1));
      planes[cell] = tones[q]! * STEPS + 0.5;
      planes[cell + 1] = tones[q + 1]! * STEPS + 0.5;
      planes[cell + plane] = tones[q + 2]! * STEPS + 0.5;
      planes[cell + plane + 1] = blocked[p]! - 1;
      planes[cell + 2 * plane] = Math.round(tones[q + 3]! * STEEP);
      planes[cell + 2 * plane + 1] = Math.round(tones[q + 4]! * STEEP);
      q += VALUES;
    }
}

/** Values of a row of places: whole lanes. */
export function rowOf(across: number): number {
  return Math.ceil(across / LANES) * LANES;
}
