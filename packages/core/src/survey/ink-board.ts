import { medianOf } from '../raster/median.js';
import type { Layer } from '../raster/layers.js';
import { depthsOf } from '../shape/depth.js';
import { hullOfPixels, leastRectangle } from '../shape/hull.js';
import { maskWhere } from '../shape/mask-where.js';
import { closed, opened } from '../shape/narrowed.js';
import { partsOf } from '../shape/parts.js';
import { withoutHoles } from '../shape/without-holes.js';

/** Levels that a board's own tone differs by at most from the middle one beside its letters. */
const EVEN = 20;
/** px of what may part a board: hairs and scratches on the photograph. */
const APART = 6;
/** Share of what is beside the letters that is the board, and of the letters that lie on it or border it. */
const [BESIDE, ON] = [0.5, 0.9];
/** A board is at most so much of a picture, and reaches so many of its borders at most: skies and walls are and do more. */
const LARGEST = 0.4;
const BORDERS = 1;
/** Share of the least box round it that a board fills, and share of that which the box of its letters is at least. */
const [FULL, WRITTEN] = [0.8, 0.2];

/** Pixels in which a board is looked for: of more, every second, third ... is looked at. */
const LOOKED_AT = 1 << 17;

/**
 * Whether some writing stands on a board of its own, as it does on signs, labels and number plates: an even ground of clear
 * outline, four-cornered, that the letters take up and keep to. So it stood before the camera; writing on a photograph runs
 * over what there is, or lies in a corner of it.
 * @param sites pixels of all letters of one colour @param breadth of their strokes, px
 */
export function isOnBoard(layer: Layer, sites: readonly Int32Array[], breadth: number): boolean {
  if (!sites.length) return false;
  const view = viewOf(layer, sites);
  const { width, height, ink, step } = view;
  const toInk = depthsOf(
    maskWhere(ink.length, (p) => !ink[p]),
    width,
    height,
  );
  const [soft, wide] = [2 / step, Math.max(2, breadth / step)];
  const beside = pixelsWhere(ink.length, (p) => toInk[p]! > soft && toInk[p]! <= soft + wide);
  if (!beside.length) return false;
  const board = boardAround(view, beside);
  if (!board) return false;
  const area = boxed(board, width);
  if (board.length < FULL * area) return false;
  const on = new Uint8Array(ink.length);
  for (const p of board) on[p] = 1;
  const toBoard = depthsOf(
    maskWhere(on.length, (p) => !on[p]),
    width,
    height,
  );
  const letters = pixelsWhere(ink.length, (p) => ink[p] === 1);
  const near = letters.filter((p) => toBoard[p]! <= 2 * wide + soft);
  if (near.length < ON * letters.length) return false;
  const within = letters.filter((p) => on[p]);
  return within.length > 0 && boxed(within, width) >= WRITTEN * area;
}

/** Some letters and as much around them as a board of theirs may take up, a pixel of every so many. */
interface View {
  readonly width: number;
  readonly height: number;
  /** px of the layer from one to the next. */
  readonly step: number;
  readonly ink: Uint8Array;
  /** What the layer has there, plane by plane. */
  readonly planes: readonly Float32Array[];
  /** Whether left, right, top and bottom are the picture's own. */
  readonly ends: readonly boolean[];
  /** Pixels of the whole picture, as many as would be looked at. */
  readonly inAll: number;
}

function viewOf({ grey, colours }: Layer, sites: readonly Int32Array[]): View {
  let [left, right, top, bottom] = [grey.width, 0, grey.height, 0];
  for (const site of sites)
    for (const p of site) {
      const [x, y] = [p % grey.width, Math.floor(p / grey.width)];
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  const more = Math.max(right - left, bottom - top) + 1;
  [left, top] = [Math.max(0, left - more), Math.max(0, top - more)];
  right = Math.min(grey.width, right + more + 1);
  bottom = Math.min(grey.height, bottom + more + 1);
  const step = Math.ceil(Math.sqrt(((right - left) * (bottom - top)) / LOOKED_AT));
  const [width, height] = [Math.ceil((right - left) / step), Math.ceil((bottom - top) / step)];
  const ink = new Uint8Array(width * height);
  for (const site of sites)
    for (const p of site) {
      const [x, y] = [(p % grey.width) - left, Math.floor(p / grey.width) - top];
      ink[Math.floor(y / step) * width + Math.floor(x / step)] = 1;
    }
  const planes = (colours.length ? colours : [grey]).map(({ values }) => {
    const seen = new Float32Array(ink.length);
    for (let p = 0; p < seen.length; p++)
      seen[p] =
        values[(top + step * Math.floor(p / width)) * grey.width + left + step * (p % width)]!;
    return seen;
  });
  const ends = [left === 0, right === grey.width, top === 0, bottom === grey.height];
  return { width, height, step, ink, planes, ends, inAll: grey.values.length / (step * step) };
}

/**
 * The even ground that has most of what is beside some letters, its holes filled and without what hangs on it by little; null
 * where there is no such thing.
 */
function boardAround(
  { width, height, step, ink, planes, ends, inAll }: View,
  beside: readonly number[],
): Int32Array | null {
  const middle = planes.map((values) => medianOf(beside.map((p) => values[p]!)));
  const isEven = (p: number): boolean =>
    planes.every((values, c) => Math.abs(values[p]! - middle[c]!) <= EVEN);
  if (beside.filter(isEven).length < BESIDE * beside.length) return null;
  const plain = maskWhere(ink.length, (p) => !ink[p] && isEven(p));
  const reach = Math.floor(APART / 2 / step);
  const whole = closed(plain, width, height, reach);
  const even = maskWhere(ink.length, (p) => whole[p] === 1 && !ink[p]);
  const isBeside = new Uint8Array(ink.length);
  for (const p of beside) isBeside[p] = 1;
  let best: Int32Array = new Int32Array(0);
  let most = 0;
  for (const part of partsOf(even, width, false)) {
    const has = part.reduce((sum, p) => sum + isBeside[p]!, 0);
    if (has <= most) continue;
    best = part;
    most = has;
  }
  if (most < BESIDE * beside.length || best.length > LARGEST * inAll) return null;
  const solid = new Uint8Array(ink.length);
  for (const p of best) solid[p] = 1;
  const enclosing = opened(withoutHoles(solid, width), width, height, reach);
  const board = Int32Array.from(pixelsWhere(ink.length, (p) => enclosing[p] === 1));
  const reached = bordersOf(board, width, height);
  // What runs on beyond what was looked at is larger than a board of theirs.
  const runsOn = reached.some((is, side) => is && !ends[side]);
  const isWithin = board.length > 0 && board.length <= LARGEST * inAll;
  return isWithin && !runsOn && reached.filter(Boolean).length <= BORDERS ? board : null;
}

/** Whether some pixels reach a frame's left, right, top and bottom border. */
function bordersOf(pixels: Int32Array, width: number, height: number): boolean[] {
  const reached = [false, false, false, false];
  for (const p of pixels) {
    const x = p % width;
    if (x === 0) reached[0] = true;
    if (x === width - 1) reached[1] = true;
    if (p < width) reached[2] = true;
    if (p >= width * (height - 1)) reached[3] = true;
  }
  return reached;
}

/** Area of the least box round some pixels, turned as need be, px. */
const boxed = (pixels: ArrayLike<number>, width: number): number =>
  leastRectangle(hullOfPixels(pixels, width)).area;

function pixelsWhere(count: number, isIn: (p: number) => boolean): number[] {
  const found: number[] = [];
  for (let p = 0; p < count; p++) if (isIn(p)) found.push(p);
  return found;
}
