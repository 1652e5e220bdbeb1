import type { Raster } from '../raster/raster.js';
import { colourChannels, sampleBytes, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { openArena } from '../wasm/arena.js';
import type { Kind } from '../wasm/kind.js';
import { kindOf } from '../wasm/kind.js';
import { FIND_KERNEL } from './find-kernel.js';

type Luma = (
  samples: number,
  count: number,
  channels: number,
  colours: number,
  scale: number,
  grey: number,
) => void;

/** Functions of kernels/find.ts. Addresses in bytes; `ground` is a record there. */
interface FindKernel extends Readonly<Record<`luma${Kind}`, Luma>> {
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
 * @param hole 1 = site, one value a pixel of the window @param out how far outside the border pixels they are looked for, px
 */
export function edgesBeside(window: Raster, hole: Uint8Array, out: number): Edge[] {
  const { width, height, channels, data } = window;
  const n = hole.length;
  const arena = openArena<FindKernel>(FIND_KERNEL, 5 * n + data.byteLength, 3, { shared: true });
  const { kernel } = arena;
  const [greys, mask] = [arena.floats(n), arena.bytes(n)];
  const samples = arena.bytes(data.byteLength);
  samples.set(sampleBytes(data));
  mask.set(hole);
  const luma = kernel[`luma${kindOf(data.BYTES_PER_ELEMENT)}`];
  const [colours, scale] = [colourChannels(channels), 255 / whiteOf(data)];
  luma(samples.byteOffset, n, channels, colours, scale, greys.byteOffset);
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
