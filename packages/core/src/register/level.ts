import type { Plane } from '../raster/plane.js';
import type { Crew } from '../task/crew.js';
import { MOST_RANGES, rangesOf } from '../task/crew.js';
import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import { REGISTER_KERNEL } from './register-kernel.js';

/** Values that describe a feature: 4 x 4 cells of 8 directions. */
export const SIZE = 128;
/** Half the side of what is described, px. */
const REACH = 8;
/** Samples that are taken a side. */
const SEEN = 2 * REACH + 2;
/** Rows, and corners, that a thread takes at least. */
const ROWS = 24;
const CORNERS = 40;

/** Taps of a Gaussian, the middle one first; beyond three px it is taken to be nothing. */
function tapsOf(sigma: number): Float32Array {
  const taps = Float32Array.from({ length: 4 }, (_, k) => Math.exp((-k * k) / (2 * sigma * sigma)));
  const sum = 2 * (taps[1]! + taps[2]! + taps[3]!) + taps[0]!;
  return taps.map((t) => t / sum);
}

/** What corners are weighed by, less the farther from the middle. */
const WEIGHTS = Float32Array.from({ length: 4 * REACH * REACH }, (_, p) => {
  const [u, v] = [(p % (2 * REACH)) - REACH, Math.floor(p / (2 * REACH)) - REACH];
  return Math.exp(-(u * u + v * v) / (REACH * REACH));
});

/** One level of a picture in the kernel's memory; done with when the next one is opened. */
export class Level {
  readonly width: number;
  readonly height: number;
  private readonly arena: Arena<object>;
  private readonly plane: Float32Array;
  private readonly across: Float32Array;
  private readonly soft: Float32Array;
  private readonly taps: Float32Array;
  private readonly sums: Float32Array;
  private readonly strong: Float32Array;
  private readonly corners: Float32Array;
  private readonly weights: Float32Array;
  private readonly seen: Float32Array;
  private readonly looks: Float32Array;

  /** @param most corners that will be described at the most */
  constructor(
    { width, height, values }: Plane,
    most: number,
    private readonly crew: Crew,
  ) {
    [this.width, this.height] = [width, height];
    const sums = 3 * width * MOST_RANGES;
    const seen = SEEN * SEEN * MOST_RANGES;
    const floats = 4 * values.length + 4 + sums + (SIZE + 2) * most + WEIGHTS.length + seen;
    const arena = openArena<object>(REGISTER_KERNEL, 4 * floats, 10, { once: true, shared: true });
    this.arena = arena;
    this.plane = arena.floats(values.length);
    this.plane.set(values);
    this.across = arena.floats(values.length);
    this.soft = arena.floats(values.length);
    this.strong = arena.floats(values.length);
    this.taps = arena.floats(4);
    this.sums = arena.floats(sums);
    this.corners = arena.floats(2 * most);
    this.weights = arena.floats(WEIGHTS.length);
    this.weights.set(WEIGHTS);
    this.seen = arena.floats(seen);
    this.looks = arena.floats(SIZE * most);
  }

  /** The smaller eigenvalue of the slopes' mean tensor at every pixel; 0 near the border (Shi, Tomasi, CVPR 1994). */
  strength(): Float32Array {
    this.soften(0.8);
    const { width, height, soft, sums, strong } = this;
    this.run('strength', rangesOf(height, ROWS), [soft, width, height, sums, strong]);
    return strong;
  }

  /**
   * SIZE values a corner, of length 1: histograms of slope directions in 4 x 4 cells (after Lowe, "Distinctive Image
   * Features from Scale-Invariant Keypoints", IJCV 60(2), 2004, without turning: frames are held nearly upright).
   * @param places x and y of each corner in turn, at least 10 px from the border
   */
  describe(places: readonly number[]): Float32Array {
    const count = places.length / 2;
    this.soften(1);
    this.corners.set(places);
    const { width, soft, corners, weights, seen, looks } = this;
    this.run('describe', rangesOf(count, CORNERS), [soft, width, corners, weights, seen, looks]);
    return looks.subarray(0, SIZE * count);
  }

  private soften(sigma: number): void {
    this.taps.set(tapsOf(sigma));
    const { width, height, plane, across, soft, taps } = this;
    const rows = rangesOf(height, ROWS);
    this.run('across', rows, [plane, width, taps, across]);
    this.run('down', rows, [across, width, height, taps, soft]);
  }

  private run(
    name: string,
    ranges: ReturnType<typeof rangesOf>,
    args: readonly (number | Float32Array)[],
  ): void {
    const numbers = args.map((a) => (typeof a === 'number' ? a : a.byteOffset));
    this.crew.run(this.arena.room, name, numbers, ranges);
  }
}
