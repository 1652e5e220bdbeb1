import type { Raster } from '../raster/raster.js';
import { colourChannels, sampleBytes, whiteOf } from '../raster/raster.js';
import type { Crew, Range } from '../task/crew.js';
import { alone } from '../task/crew.js';
import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import type { SharedFunction } from './kernel.js';
import { sharedName } from './kernel.js';
import { REPAIR_KERNEL } from './repair-kernel.js';

/** Values on a picture's scale: doubles where its samples are finer than floats tell. */
export type Tones = Float32Array | Float64Array;

/** A number, or an array in the kernel's memory. */
type Argument = number | Tones | Int32Array | Uint8Array;

/** A picture and the copies in it, in memory that threads share. */
export interface LaidCopies {
  readonly picture: Raster;
  readonly arena: Arena<unknown>;
  readonly crew: Crew;
  /** The record that names them to the kernel. */
  readonly record: Int32Array;
  /** The picture's samples, and for every pixel the one it is copied from, negative outside the site. */
  readonly samples: Uint8Array;
  readonly sources: Int32Array;
  /** What comes of the copies, on the picture's scale and laid out like it. */
  readonly colour: Tones;
  /** Runs one of the kernel's shared functions over ranges. */
  run(name: SharedFunction, args: readonly Argument[], ranges: readonly Range[]): void;
}

/** Lays a picture out, with room for the copies in it. @param crew threads that share what is done with them */
export function openCopies(picture: Raster, crew: Crew): LaidCopies {
  const { width, height, channels, data } = picture;
  const isDeep = areDoubles(picture);
  const size = isDeep ? 8 : 4;
  const pixels = width * height;
  const arena: Arena<unknown> = openArena(
    REPAIR_KERNEL,
    data.byteLength + 4 * pixels + size * data.length + 24,
    4,
    { shared: true },
  );
  const record = arena.words(6);
  const samples = arena.bytes(data.byteLength);
  const sources = arena.words(pixels);
  samples.set(sampleBytes(data));
  const places = [samples.byteOffset, width, height, channels, colourChannels(channels)];
  record.set([...places, sources.byteOffset]);
  return {
    picture,
    arena,
    crew,
    record,
    samples,
    sources,
    colour: isDeep ? arena.doubles(data.length) : arena.floats(data.length),
    run: (name, args, ranges) => {
      const addresses = args.map((arg) => (typeof arg === 'number' ? arg : arg.byteOffset));
      crew.run(arena.room, sharedName(name, data.BYTES_PER_ELEMENT), addresses, ranges);
    },
  };
}

/** Lays a picture and its copies out. @param from for every pixel the one it is copied from, -1 outside the site */
export function layCopies(picture: Raster, from: Int32Array, crew: Crew = alone): LaidCopies {
  const copies = openCopies(picture, crew);
  copies.sources.set(from);
  return copies;
}

/** Whether a picture's samples are finer than floats tell. */
export function areDoubles({ data }: Raster): boolean {
  return whiteOf(data) !== 255;
}
