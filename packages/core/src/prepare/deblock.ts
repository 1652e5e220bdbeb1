import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Raster } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint, portionOf } from '../task/task.js';
import { BLOCK, dct, inverseDct } from './dct.js';
import { stepsAt } from './quantization.js';

/** How the blocks of a compression are reduced. */
export interface Deblocking {
  /** Where the grid begins, px, 0..7. */
  readonly x: number;
  readonly y: number;
  /** Quality it was compressed at, 1..100. */
  readonly quality: number;
  /** Share of the result that is taken, 0..1. */
  readonly strength: number;
}

/** Shifts of the grid down, px, each with those across: an eighth of all, evenly spread, at a tenth of a decibel's cost. */
const SHIFTS = [
  [0, [0, 4]],
  [2, [2, 6]],
  [4, [0, 4]],
  [6, [2, 6]],
] as const;
/** Rows after which progress is told. */
const STRIP = 64;
/** Share of the time that luma takes in a coloured picture. */
const LUMA = 2 / 3;

interface Field {
  readonly width: number;
  readonly height: number;
  readonly values: Float32Array;
}

/**
 * Blocks and ringing reduced by compressing again at shifted grids and taking the mean of what comes out (Nosratinia,
 * "Enhancement of JPEG-Compressed Images by Re-application of JPEG", J. VLSI Signal Processing 27, 2001); colour differences
 * at half the size, as they are usually kept.
 * @param into holds what is written; as large as the picture
 * @throws Cancelled
 */
export function deblock(picture: Raster, how: Deblocking, into: Raster, task?: Task): void {
  const { width, height, channels, data } = picture;
  into.data.set(data);
  if (how.strength <= 0) return;
  const colours = colourChannels(channels);
  const white = whiteOf(data);
  const [luma, ...differences] = fieldsOf(picture);
  const changes = [
    changeOf(
      luma!,
      stepsAt(how.quality, 'luminance'),
      how,
      colours === 3 ? portionOf(task, 0, LUMA) : task,
    ),
    ...differences.map((field, k) =>
      enlarged(
        changeOf(
          halved(field),
          stepsAt(how.quality, 'chrominance'),
          { x: how.x >> 1, y: how.y >> 1 },
          portionOf(task, LUMA + (k * (1 - LUMA)) / 2, LUMA + ((k + 1) * (1 - LUMA)) / 2),
        ),
        width,
        height,
      ),
    ),
  ];
  const scale = (how.strength * white) / 255;
  for (let p = 0, i = 0; p < width * height; p++, i += channels) {
    const y = changes[0]![p]!;
    const [cb, cr] = colours === 3 ? [changes[1]![p]!, changes[2]![p]!] : [0, 0];
    const by = [y + 1.402 * cr, y - 0.344136 * cb - 0.714136 * cr, y + 1.772 * cb];
    for (let c = 0; c < colours; c++) {
      const value = data[i + c]! + scale * by[c]!;
      const held = value < 0 ? 0 : value > white ? white : value;
      into.data[i + c] = white === 1 ? held : Math.round(held);
    }
  }
}

/** Luma, and for colour its two differences, on the scale of 255 (ITU-T T.871). */
function fieldsOf({ width, height, channels, data }: Raster): Field[] {
  const scale = 255 / whiteOf(data);
  const field = (): Field => ({ width, height, values: new Float32Array(width * height) });
  if (colourChannels(channels) === 1) {
    const luma = field();
    for (let p = 0, i = 0; p < luma.values.length; p++, i += channels)
      luma.values[p] = scale * data[i]!;
    return [luma];
  }
  const [y, cb, cr] = [field(), field(), field()];
  for (let p = 0, i = 0; p < y.values.length; p++, i += channels) {
    const [r, g, b] = [scale * data[i]!, scale * data[i + 1]!, scale * data[i + 2]!];
    const luma = 0.299 * r + 0.587 * g + 0.114 * b;
    y.values[p] = luma;
    cb.values[p] = (b - luma) / 1.772;
    cr.values[p] = (r - luma) / 1.402;
  }
  return [y, cb, cr];
}

/** What the mean over shifted grids differs from a field by. */
function changeOf(
  field: Field,
  steps: Float64Array,
  { x, y }: { readonly x: number; readonly y: number },
  task?: Task,
): Float32Array {
  const { width, height, values } = field;
  const sums = new Float32Array(values.length);
  const block = new Float64Array(64);
  SHIFTS.forEach(([dy, across], k) => {
    for (let top = firstOver(y + dy); top < height; top += BLOCK) {
      if (top % STRIP < BLOCK) checkpoint(task, (k + top / height) / SHIFTS.length);
      for (const dx of across)
        for (let left = firstOver(x + dx); left < width; left += BLOCK) {
          read(field, left, top, block);
          requantize(block, steps);
          add(sums, width, height, left, top, block);
        }
    }
  });
  const count = SHIFTS.reduce((n, [, across]) => n + across.length, 0);
  for (let p = 0; p < sums.length; p++) sums[p] = sums[p]! / count - values[p]!;
  return sums;
}

/** Where the first block of a grid begins that covers the first pixel, px; not after it. */
function firstOver(phase: number): number {
  return (phase % BLOCK) - (phase % BLOCK ? BLOCK : 0);
}

/** A block's values; beyond the border the last ones repeat. */
function read(
  { width, height, values }: Field,
  left: number,
  top: number,
  block: Float64Array,
): void {
  if (left >= 0 && top >= 0 && left + BLOCK <= width && top + BLOCK <= height) {
    for (let j = 0, i = 0; j < BLOCK; j++)
      for (let p = (top + j) * width + left, end = p + BLOCK; p < end; p++) block[i++] = values[p]!;
    return;
  }
  for (let j = 0, i = 0; j < BLOCK; j++) {
    const y = Math.min(height - 1, Math.max(0, top + j));
    for (let k = 0; k < BLOCK; k++)
      block[i++] = values[y * width + Math.min(width - 1, Math.max(0, left + k))]!;
  }
}

/** A block as it comes out of the compression. */
function requantize(block: Float64Array, steps: Float64Array): void {
  dct(block);
  let columns = 0;
  for (let k = 0; k < 64; k++) {
    const times = Math.round(block[k]! / steps[k]!);
    block[k] = steps[k]! * times;
    if (times && (k & 7) >= columns) columns = (k & 7) + 1;
  }
  if (columns) inverseDct(block, columns);
}

function add(
  sums: Float32Array,
  width: number,
  height: number,
  left: number,
  top: number,
  block: Float64Array,
): void {
  const [x0, x1] = [Math.max(0, -left), Math.min(BLOCK, width - left)];
  const [y0, y1] = [Math.max(0, -top), Math.min(BLOCK, height - top)];
  for (let j = y0; j < y1; j++)
    for (let k = x0, p = (top + j) * width + left + x0; k < x1; k++, p++)
      sums[p]! += block[j * BLOCK + k]!;
}

/** Means of two by two; an odd last row or column stands for itself. */
function halved({ width, height, values }: Field): Field {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const out = new Float32Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const p = 2 * y * width + 2 * x;
      const right = 2 * x + 1 < width ? 1 : 0;
      const down = 2 * y + 1 < height ? width : 0;
      out[y * w + x] =
        (values[p]! + values[p + right]! + values[p + down]! + values[p + right + down]!) / 4;
    }
  return { width: w, height: h, values: out };
}

/** A change of half the size laid over the whole, each value over its four pixels' middles (bilinear). */
function enlarged(change: Float32Array, width: number, height: number): Float32Array {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const out = new Float32Array(width * height);
  for (let y = 0; y < height; y++) {
    const near = y >> 1;
    const next = Math.min(h - 1, Math.max(0, near + (y & 1 ? 1 : -1)));
    for (let x = 0; x < width; x++) {
      const own = x >> 1;
      const beside = Math.min(w - 1, Math.max(0, own + (x & 1 ? 1 : -1)));
      out[y * width + x] =
        (9 * change[near * w + own]! +
          3 * change[near * w + beside]! +
          3 * change[next * w + own]! +
          change[next * w + beside]!) /
        16;
    }
  }
  return out;
}
