import { medianOf } from '../raster/median.js';
import type { Layer } from '../raster/layers.js';
import { depthsOf } from '../shape/depth.js';
import { maskWhere } from '../shape/mask-where.js';
import { partsOf } from '../shape/parts.js';
import { offFrom } from './ink-letters.js';

/** Levels that a board's own tone differs by at most from the middle one beside its letters. */
const EVEN = 20;
/** px of what may part a board: hairs and scratches on the photograph. */
const APART = 6;
/** Share of what is beside the letters that is the board, and of the letters that lie on it or border it. */
const [BESIDE, ON] = [0.5, 0.9];
/** A board is at most so much of a picture, and reaches so many of its borders at most: skies and walls are and do more. */
const LARGEST = 0.4;
const BORDERS = 1;
/** Share of its box, turned as it lies, that a board fills, and share of it that its letters' box is at least. */
const [FULL, WRITTEN] = [0.8, 0.2];
/** Ways that a box may be turned by, over a quarter turn. */
const TURNS = 18;

/**
 * Whether some writing stands on a board of its own, as it does on signs, labels and number plates: an even ground of clear
 * outline, four-cornered, that the letters take up and keep to. So it stood before the camera; writing on a photograph runs
 * over what there is, or lies in a corner of it.
 * @param sites pixels of all letters of one colour @param breadth of their strokes, px
 */
export function isOnBoard(layer: Layer, sites: readonly Int32Array[], breadth: number): boolean {
  const { width, height } = layer.grey;
  const ink = new Uint8Array(width * height);
  for (const site of sites) for (const p of site) ink[p] = 1;
  const toInk = depthsOf(
    maskWhere(ink.length, (p) => !ink[p]),
    width,
    height,
  );
  const beside = pixelsWhere(ink.length, (p) => toInk[p]! > 2 && toInk[p]! <= 2 + breadth);
  if (!beside.length) return false;
  const board = boardAround(layer, ink, beside);
  if (!board) return false;
  const box = turnedBox(board, width);
  if (board.length < FULL * box.area) return false;
  const on = new Uint8Array(ink.length);
  for (const p of board) on[p] = 1;
  if (shareOf(beside, on) < BESIDE) return false;
  const toBoard = depthsOf(
    maskWhere(on.length, (p) => !on[p]),
    width,
    height,
  );
  const letters = pixelsWhere(ink.length, (p) => ink[p] === 1);
  const near = letters.filter((p) => toBoard[p]! <= 2 * breadth + 2);
  if (near.length < ON * letters.length) return false;
  const within = letters.filter((p) => on[p]);
  return boxAt(within, width, box.angle) >= WRITTEN * box.area;
}

/** The even ground that has most of what is beside some letters, its holes filled; null where there is no such thing. */
function boardAround(layer: Layer, ink: Uint8Array, beside: readonly number[]): Int32Array | null {
  const { width, height } = layer.grey;
  const planes = layer.colours.length ? layer.colours : [layer.grey, layer.grey, layer.grey];
  const middle = planes.map(({ values }) => medianOf(beside.map((p) => values[p]!)));
  const off = offFrom(layer, middle, 1);
  const even = closed(
    maskWhere(ink.length, (p) => !ink[p] && off(p) <= EVEN),
    ink,
    width,
    height,
  );
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
  if (most < BESIDE * beside.length || best.length > LARGEST * ink.length) return null;
  const whole = filled(best, width, height);
  return whole.length <= LARGEST * ink.length && bordersOf(whole, width, height) <= BORDERS
    ? whole
    : null;
}

/** A mask with what parts it no broader than {@link APART}, but for what is barred. */
function closed(mask: Uint8Array, barred: Uint8Array, width: number, height: number): Uint8Array {
  const away = depthsOf(
    maskWhere(mask.length, (p) => !mask[p]),
    width,
    height,
  );
  const grown = maskWhere(mask.length, (p) => away[p]! <= APART / 2);
  const depths = depthsOf(grown, width, height);
  return maskWhere(mask.length, (p) => mask[p] === 1 || (depths[p]! > APART / 2 && !barred[p]));
}

/** A part with what it encloses. */
function filled(part: Int32Array, width: number, height: number): Int32Array {
  const open = new Uint8Array(width * height).fill(1);
  for (const p of part) open[p] = 0;
  const inside: number[] = [];
  for (const hole of partsOf(open, width, false))
    if (bordersOf(hole, width, height) === 0) for (const p of hole) inside.push(p);
  return Int32Array.from([...part, ...inside]).sort();
}

/** How many of a frame's four borders some pixels reach. */
function bordersOf(pixels: Int32Array, width: number, height: number): number {
  const reached = new Set<string>();
  for (const p of pixels) {
    const x = p % width;
    if (x === 0) reached.add('left');
    if (x === width - 1) reached.add('right');
    if (p < width) reached.add('top');
    if (p >= width * (height - 1)) reached.add('bottom');
  }
  return reached.size;
}

/** The smallest box around some pixels, turned as need be. */
function turnedBox(pixels: Int32Array, width: number): { angle: number; area: number } {
  let best = { angle: 0, area: Infinity };
  for (let k = 0; k < TURNS; k++) {
    const angle = (k * Math.PI) / (2 * TURNS);
    const area = boxAt(pixels, width, angle);
    if (area < best.area) best = { angle, area };
  }
  return best;
}

/** Area of the box around some pixels, turned by an angle, px. */
function boxAt(pixels: ArrayLike<number>, width: number, angle: number): number {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let k = 0; k < pixels.length; k++) {
    const [x, y] = [pixels[k]! % width, Math.floor(pixels[k]! / width)];
    const [u, v] = [x * cos + y * sin, y * cos - x * sin];
    left = Math.min(left, u);
    right = Math.max(right, u);
    top = Math.min(top, v);
    bottom = Math.max(bottom, v);
  }
  return pixels.length ? (right - left + 1) * (bottom - top + 1) : 0;
}

function pixelsWhere(count: number, isIn: (p: number) => boolean): number[] {
  const found: number[] = [];
  for (let p = 0; p < count; p++) if (isIn(p)) found.push(p);
  return found;
}

function shareOf(pixels: readonly number[], mask: Uint8Array): number {
  return pixels.reduce((sum, p) => sum + mask[p]!, 0) / pixels.length;
}
