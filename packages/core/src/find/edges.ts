import type { Point } from '../shape/site.js';
import { openArena } from '../wasm/arena.js';
import { FIND_KERNEL } from './find-kernel.js';

/** Functions of kernels/find.ts. Addresses in bytes; `ground` is a record there. */
interface FindKernel {
  rim(
    hole: number,
    width: number,
    height: number,
    out: number,
    margin: number,
    points: number,
  ): number;
  edges(ground: number, points: number, count: number, out: number): void;
}

/** Grey values, and a mask whose pixels are unknown, a value a pixel each. */
export interface Ground {
  readonly grey: Float32Array;
  /** 1 = unknown. */
  readonly hole: Uint8Array;
  readonly width: number;
}

/** A place beside a site, px, and the unit vector from there into it. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly inwards: Point;
}

/** An edge through a place beside a site. */
export interface Edge {
  /** The place it was looked for from. */
  readonly from: Point;
  readonly at: Point;
  /** Unit vector along it, into the site. */
  readonly inward: Point;
  /** Step of luma between its two sides, codes. */
  readonly strength: number;
  /** Whether it is straight for a long way. */
  readonly straight: boolean;
  /** How it bends on its way into the site, radians a px; to the left is more than 0. */
  readonly bend: number;
}

/** Half the window an edge is measured in, px. */
export const HALF = 5;
/** How far an edge is followed back to learn its direction, px. */
export const FOLLOWED = 48;
/** Doubles of a place, of an edge, and of a way that is followed. */
const [PLACE, EDGE, LINE] = [4, 8, 48];

/**
 * The edges that run into a site along its border: by the structure tensors of places a little outside it (Forstner and Gulch
 * 1987), followed back from there to where they are steepest, a line of least squares through that.
 * @param out how far outside the border pixels they are looked for, px
 */
export function edgesBeside({ grey, hole, width }: Ground, out: number): Edge[] {
  const height = hole.length / width;
  const arena = openArena<FindKernel>(FIND_KERNEL, 5 * hole.length, 2, { shared: true });
  const [greys, mask] = [arena.floats(grey.length), arena.bytes(hole.length)];
  greys.set(grey);
  mask.set(hole);
  const { kernel } = arena;
  const rim = (points: number): number =>
    kernel.rim(mask.byteOffset, width, height, out, out + HALF, points);
  const count = rim(0);
  const room = arena.more(8 * ((PLACE + EDGE) * count + LINE) + 4 * 5, 4);
  const [points, told] = [room.doubles(PLACE * count), room.doubles(EDGE * count)];
  const [line, ground] = [room.doubles(LINE), room.words(5)];
  rim(points.byteOffset);
  ground.set([greys.byteOffset, mask.byteOffset, width, height, line.byteOffset]);
  kernel.edges(ground.byteOffset, points.byteOffset, count, told.byteOffset);
  const found: Edge[] = [];
  for (let k = 0; k < count; k++) {
    const of = (word: number): number => told[EDGE * k + word]!;
    if (!of(0)) continue;
    found.push({
      from: [points[PLACE * k]!, points[PLACE * k + 1]!],
      strength: of(0),
      at: [of(1), of(2)],
      inward: [of(3), of(4)],
      straight: of(5) === 1,
      bend: of(6),
    });
  }
  return found;
}
