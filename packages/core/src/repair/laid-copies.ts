import { nodesAlong } from '../predict/tile.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, sampleBytes, whiteOf } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import { LANES } from '../solve/levels.js';
import type { System } from '../solve/system.js';
import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import type { Copies } from './copies.js';
import type { RepairFunctions, RepairKernel } from './kernel.js';
import { functionsFor } from './kernel.js';
import { REPAIR_KERNEL } from './repair-kernel.js';

/** Values on a picture's scale: doubles where its samples are finer than floats tell. */
export type Tones = Float32Array | Float64Array;

/** A picture and the copies in it, in a kernel's memory, with room for the cells of a part at a time. */
export interface LaidCopies extends Copies {
  readonly picture: Raster;
  readonly kernel: RepairFunctions;
  /** Address of the record that names them to the kernel. */
  readonly at: number;
  /** What comes of the copies, on the picture's scale and laid out like it. */
  readonly colour: Tones;
  readonly part: PartRoom;
  /** Sums of the squared differences of steps, and of their squares, a value a square. */
  readonly unlike: Float64Array;
  readonly steps: Float64Array;
}

/** Room for the system of a part, no larger than the largest box. */
export interface PartRoom {
  /** Its record for the kernel: cells, runs, weights. */
  readonly record: Int32Array;
  readonly runs: Int32Array;
  readonly own: Float32Array;
  readonly right: Float32Array;
  readonly below: Float32Array;
  /** Four values a cell. */
  readonly asked: Tones;
  readonly correction: Tones;
  /** Three sums and how firmly four neighbours are held, for the kernel. */
  readonly sums: Float64Array;
  readonly held: Float64Array;
}

/** Lays a picture and its copies out. @param mostCells of the parts that are solved for, one by one */
export function layCopies(picture: Raster, { from, mask }: Copies, mostCells: number): LaidCopies {
  const { width, height, channels, data } = picture;
  const deep = whiteOf(data) !== 255;
  const size = deep ? 8 : 4;
  const cells = mostCells;
  const nodes = nodesAlong(width) * nodesAlong(height);
  const arena: Arena<RepairKernel> = openArena(
    REPAIR_KERNEL,
    data.byteLength +
      4 * from.length +
      size * data.length +
      cells * (5 * 4 + 2 * LANES * size) +
      16 * nodes +
      512,
    16,
  );
  const tones = (length: number): Tones => (deep ? arena.doubles(length) : arena.floats(length));
  const record = arena.words(6);
  const samples = arena.bytes(data.byteLength);
  const sources = arena.words(from.length);
  samples.set(sampleBytes(data));
  sources.set(from);
  const places = [samples.byteOffset, width, height, channels, colourChannels(channels)];
  record.set([...places, sources.byteOffset]);
  return {
    picture,
    from,
    mask,
    kernel: functionsFor(arena.kernel, data.BYTES_PER_ELEMENT),
    at: record.byteOffset,
    colour: tones(data.length),
    unlike: arena.doubles(nodes),
    steps: arena.doubles(nodes),
    part: {
      record: arena.words(6),
      runs: arena.words(2 * cells),
      own: arena.floats(cells),
      right: arena.floats(cells),
      below: arena.floats(cells),
      asked: tones(cells * LANES),
      correction: tones(cells * LANES),
      sums: arena.doubles(3),
      held: arena.doubles(4),
    },
  };
}

/**
 * Lays a part's system into the room for it, and what is asked of it as nothing.
 * @param corner of the system's window
 * @returns the system, its weights those in the room, and room for what is asked of its cells and what comes of it
 */
export function layPart(
  { part, picture }: LaidCopies,
  corner: Pick<Rect, 'x' | 'y'>,
  system: System,
): { readonly system: System; readonly asked: Tones; readonly correction: Tones } {
  const { record, runs } = part;
  const { cells, width } = system;
  // Of the window's runs, those of the picture.
  for (let k = 0; k < system.runs.length; k++) {
    const row = Math.floor(system.runs[k - (k & 1)]! / width);
    const x = system.runs[k]! - row * width;
    runs[k] = (corner.y + row) * picture.width + corner.x + x;
  }
  const [own, right, below] = [part.own, part.right, part.below].map((weights) =>
    weights.subarray(0, cells),
  ) as [Float32Array, Float32Array, Float32Array];
  own.set(system.own);
  right.set(system.right);
  below.set(system.below);
  const places = [own, right, below].map((weights) => weights.byteOffset);
  record.set([cells, runs.byteOffset, system.runs.length / 2, ...places]);
  const [asked, correction] = [part.asked, part.correction].map((tones) =>
    tones.subarray(0, LANES * cells).fill(0),
  );
  return {
    system: { ...system, own, right, below },
    asked: asked!,
    correction: correction!,
  };
}
