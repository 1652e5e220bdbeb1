import type { Raster } from '../raster/raster.js';
import { bytesPerSample, depthOf, sampleBytes } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { PointMap } from '../raster/resample.js';
import type { Crew } from '../task/crew.js';
import { rangesOf } from '../task/crew.js';
import type { Arena } from '../wasm/arena.js';
import { openArena } from '../wasm/arena.js';
import type { Evening } from './evening.js';
import { encodedRoots, liftsOf, RINGS, rootsOfCodes, rootsOfGains, STEPS } from './evening.js';
import { gridLength, gridOf } from './grid.js';
import { JOIN_KERNEL } from './join-kernel.js';
import type { Labels } from './labels.js';
import { NOBODY } from './seams.js';
import { CannotLay } from './surface.js';

/** Halvings of a picture into bands. */
const LEVELS = 5;
const EDGE = 1 << LEVELS;
/** Pixels that a thread takes at least. */
const LEAST = 20_000;
/** Bytes of finished samples at a time. */
const STRIP = 1 << 22;
/** Most bytes that the kernel can work on. */
const MOST = 0xf000_0000;
/** Four floats. */
const PIXEL = 16;

/** The largest side of anything that is laid on the canvas. */
interface Sizes {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly (Rect | null)[];
}

/**
 * A canvas that frames are laid on band by band (Burt, Adelson, "A Multiresolution Spline", ACM TOG 2(4), 1983), in the
 * kernel's memory: a pixel is four floats there, up to three channels 0..1 and how much it counts.
 */
export class JoinCanvas {
  /** Whose each pixel is, NOBODY where no frame reaches. */
  readonly owners: Uint8Array;
  private readonly width: number;
  private readonly height: number;
  /** Sides with room to be halved. */
  private readonly wide: number;
  private readonly tall: number;
  private readonly arena: Arena<object>;
  private readonly sums: Float32Array[];
  private readonly sheets: Float32Array[];
  private readonly grid: Float64Array;
  private readonly codes: Uint8Array;
  private readonly even: Float32Array;
  private readonly table: Float32Array;
  private readonly encoded: Float32Array;
  private readonly lifts: Float32Array;
  private readonly roots: Float32Array;
  private readonly strip: Uint8Array;
  private readonly labels: Uint8Array;

  /**
   * @param frames whole samples, 1 or 3 channels
   * @throws CannotLay when the kernel has not so much memory
   */
  constructor(
    { width, height, boxes }: Sizes,
    frames: readonly Raster[],
    private readonly seams: Labels,
    private readonly crew: Crew,
  ) {
    [this.width, this.height] = [width, height];
    [this.wide, this.tall] = [width, height].map((v) => Math.ceil(v / EDGE) * EDGE) as Pair;
    const canvas = pyramid(this.wide, this.tall);
    const pieces = boxes.flatMap((box) => (box ? [this.pieceRound(box)] : []));
    const most = (values: readonly number[]): number => Math.max(...values);
    const pieceSide = (side: 'width' | 'height'): number => most(pieces.map((p) => p[side]));
    const piece = pyramid(pieceSide('width'), pieceSide('height'));
    const grid = most([...pieces, ...boxes.flatMap((b) => b ?? [])].map(gridLength));
    const codes = most(frames.map((f) => f.data.byteLength));
    const pixels = most(frames.map((f) => f.width * f.height));
    const table = most(frames.map((f) => (depthOf(f.data) === 'u8' ? 256 : 65536)));
    const strip = Math.max(STRIP, width * PIXEL);
    const bytes =
      (sum(canvas) + sum(piece) + pixels) * PIXEL +
      8 * grid +
      codes +
      4 * (table + STEPS + RINGS + 8) +
      width * height +
      seams.labels.length +
      strip;
    if (bytes > MOST)
      throw new CannotLay(`joined they would be ${width} x ${height} px, which is too much`);
    this.arena = openArena(JOIN_KERNEL, bytes, canvas.length + piece.length + 11, {
      once: true,
      shared: true,
    });
    const { arena } = this;
    this.sums = canvas.map((n) => arena.floats(4 * n));
    this.sheets = piece.map((n) => arena.floats(4 * n));
    this.even = arena.floats(4 * pixels);
    this.grid = arena.doubles(grid);
    this.codes = arena.bytes(codes);
    this.table = arena.floats(table);
    this.encoded = arena.floats(STEPS + 2);
    this.encoded.set(encodedRoots());
    this.lifts = arena.floats(RINGS + 2);
    this.roots = arena.floats(4);
    this.owners = arena.bytes(width * height).fill(NOBODY);
    this.labels = arena.bytes(seams.labels.length);
    this.labels.set(seams.labels);
    this.strip = arena.bytes(strip);
  }

  /** Gives a frame what the labels give it of its box, and what nobody had. */
  claim(frame: Raster, owner: number, to: PointMap, box: Rect): void {
    const points = gridOf(to, box, this.grid);
    this.run('claim', box.height, box.width, [
      this.grid.byteOffset,
      points,
      frame.width,
      frame.height,
      owner,
      this.labels.byteOffset,
      this.seams.width,
      this.seams.step,
      this.owners.byteOffset,
      this.width,
      box.x,
      box.y,
      box.width,
    ]);
  }

  /** Lays a frame where it is the owner, and adds its bands to the canvas. */
  add(frame: Raster, owner: number, to: PointMap, box: Rect, evening: Evening): void {
    const own = this.boxOf(owner, box);
    if (!own) return;
    this.takeEven(frame, evening);
    const piece = this.pieceRound(own);
    const points = gridOf(to, piece, this.grid);
    this.run('lay', piece.height, piece.width, [
      this.grid.byteOffset,
      points,
      this.even.byteOffset,
      frame.width,
      frame.height,
      owner,
      this.owners.byteOffset,
      this.width,
      this.height,
      piece.x,
      piece.y,
      piece.width,
      this.sheets[0]!.byteOffset,
    ]);
    for (let k = 0; k < LEVELS; k++) {
      const [width, rows] = [piece.width >> k, piece.height >> (k + 1)];
      const [fine, coarse] = [this.sheets[k]!.byteOffset, this.sheets[k + 1]!.byteOffset];
      this.run('reduce', rows, width, [fine, width, 2 * rows, coarse]);
      const sums = [this.sums[k]!.byteOffset, this.wide >> k, piece.x >> k, piece.y >> k];
      this.run('blend', rows, width, [fine, width, coarse, ...sums, rows]);
    }
    const [width, rows] = [piece.width >> LEVELS, piece.height >> LEVELS];
    this.run('rest', rows, width, [
      this.sheets[LEVELS]!.byteOffset,
      width,
      this.sums[LEVELS]!.byteOffset,
      this.wide >> LEVELS,
      piece.x >> LEVELS,
      piece.y >> LEVELS,
    ]);
  }

  /** Puts the bands together into a picture's samples; the canvas is done with then. */
  finish({ channels, data }: Raster): void {
    const coarsest = this.sums[LEVELS]!.byteOffset;
    this.run('average', this.tall >> LEVELS, this.wide >> LEVELS, [coarsest, this.wide >> LEVELS]);
    for (let k = LEVELS - 1; k >= 0; k--) {
      const [width, rows] = [this.wide >> k, this.tall >> (k + 1)];
      const [fine, coarse] = [this.sums[k]!.byteOffset, this.sums[k + 1]!.byteOffset];
      this.run('settle', rows, width, [fine, width, coarse, rows]);
    }
    const depth = depthOf(data);
    const size = bytesPerSample(depth);
    const white = depth === 'u8' ? 255 : depth === 'u16' ? 65535 : 1;
    const row = this.width * channels * size;
    const rows = Math.max(1, Math.floor(this.strip.length / row));
    const out = sampleBytes(data);
    for (let y = 0; y < this.height; y += rows) {
      const count = Math.min(rows, this.height - y);
      this.run('encode', count, this.width, [
        this.sums[0]!.byteOffset + y * this.wide * PIXEL,
        this.wide,
        this.owners.byteOffset + y * this.width,
        this.width,
        channels,
        size,
        white,
        this.strip.byteOffset,
      ]);
      out.set(this.strip.subarray(0, count * row), y * row);
    }
  }

  private takeEven({ width, height, channels, data }: Raster, { gains, falloff }: Evening): void {
    const white = depthOf(data) === 'u8' ? 255 : 65535;
    this.codes.set(sampleBytes(data));
    this.table.set(rootsOfCodes(white));
    this.lifts.set(liftsOf(falloff));
    this.roots.set(rootsOfGains(gains, channels));
    this.run('even', height, width, [
      this.codes.byteOffset,
      data.BYTES_PER_ELEMENT,
      channels,
      width,
      height,
      this.table.byteOffset,
      this.lifts.byteOffset,
      RINGS,
      this.roots.byteOffset,
      this.encoded.byteOffset,
      STEPS,
      this.even.byteOffset,
    ]);
  }

  /** The part of a box that is a frame's. */
  private boxOf(owner: number, { x, y, width, height }: Rect): Rect | null {
    let [left, top, right, bottom] = [width, -1, -1, -1];
    for (let v = 0; v < height; v++) {
      const at = (y + v) * this.width + x;
      const row = this.owners.subarray(at, at + width);
      const first = row.indexOf(owner);
      if (first < 0) continue;
      left = Math.min(left, first);
      right = Math.max(right, row.lastIndexOf(owner));
      if (top < 0) top = v;
      bottom = v;
    }
    if (right < 0) return null;
    return { x: x + left, y: y + top, width: right - left + 1, height: bottom - top + 1 };
  }

  /** A box with room for the coarsest band, its sides whole steps of it. */
  private pieceRound(box: Rect): Rect {
    const room = 2 * EDGE;
    const down = (v: number): number => Math.max(0, Math.floor((v - room) / EDGE) * EDGE);
    const up = (v: number, most: number): number =>
      Math.min(most, Math.ceil((v + room) / EDGE) * EDGE);
    const [x, y] = [down(box.x), down(box.y)];
    return {
      x,
      y,
      width: up(box.x + box.width, this.wide) - x,
      height: up(box.y + box.height, this.tall) - y,
    };
  }

  private run(name: string, rows: number, across: number, args: readonly number[]): void {
    this.crew.run(this.arena.room, name, args, rangesOf(rows, Math.ceil(LEAST / across)));
  }
}

type Pair = [number, number];

/** Pixels of a sheet and of all its halvings. */
function pyramid(width: number, height: number): number[] {
  return Array.from({ length: LEVELS + 1 }, (_, k) => (width >> k) * (height >> k));
}

function sum(values: readonly number[]): number {
  return values.reduce((all, v) => all + v, 0);
}
