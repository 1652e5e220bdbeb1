import type { DonorPlacement } from '../donor/placement.js';
import type { Rect } from '../raster/rect.js';
import { enclose, grow } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import { turnOf } from '../shape/turn.js';
import type { Homography } from '../shape/homography.js';
import { homographyOf, inverseOf, through } from '../shape/homography.js';
import type { Pin } from './pins.js';
import { backwards, bendBy } from './pins.js';

/** How a lifted piece is laid down; see {@link layOf}. */
export interface PieceLay {
  readonly placement: DonorPlacement;
  /** Degrees the upright sides lean, towards the right at the top. */
  readonly skew: number;
  /** How far the box's corners (top left, top right, bottom right, bottom left) are drawn off; null for not at all. */
  readonly corners: readonly Point[] | null;
  readonly pins: readonly Pin[];
}

/** Maps between the piece at rest (as lifted, moved to its place) and the piece as laid down. */
export interface Lay {
  fromRest(p: Point): Point;
  toRest(p: Point): Point;
}

/**
 * A piece is mirrored, leaned, scaled and turned about the middle of its box; then its corners are drawn off
 * (projectively), then it is bent by pins. Corners drawn onto one line are as if they had not been drawn: nothing could be seen
 * between them.
 * @param box the box of the piece at rest
 */
export function layOf({ placement, skew, corners, pins }: PieceLay, box: Rect): Lay {
  const { turn = 0, mirrorX = false, mirrorY = false, scale = 1 } = placement;
  const { cos, sin } = turnOf(turn);
  const lean = turnOf(skew);
  const slant = lean.sin / lean.cos;
  const cx = box.x + (box.width - 1) / 2;
  const cy = box.y + (box.height - 1) / 2;
  const mx = mirrorX ? -1 : 1;
  const my = mirrorY ? -1 : 1;
  const forth = ([x, y]: Point): Point => {
    const v = my * (y - cy);
    const u = mx * (x - cx) - slant * v;
    return [cx + scale * (u * cos + v * sin), cy + scale * (v * cos - u * sin)];
  };
  const back = ([x, y]: Point): Point => {
    const a = (x - cx) / scale;
    const b = (y - cy) / scale;
    const u = a * cos - b * sin;
    const v = a * sin + b * cos;
    return [cx + mx * (u + slant * v), cy + my * v];
  };
  const there = drawnOff(cornersOf(box).map(forth), corners);
  const home = there && inverseOf(there);
  const unbend = backwards(pins);
  return {
    fromRest: (p) => bendBy(pins, there ? through(there, forth(p)) : forth(p)),
    toRest(p) {
      const straight = bendBy(unbend, p);
      return back(home ? through(home, straight) : straight);
    },
  };
}

function drawnOff(stand: readonly Point[], corners: readonly Point[] | null): Homography | null {
  if (!corners?.some(([x, y]) => x !== 0 || y !== 0)) return null;
  const drawn = stand.map(([x, y], i): Point => [x + corners[i]![0], y + corners[i]![1]]);
  try {
    return homographyOf(stand, drawn);
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}

/** Corners of a box: top left, top right, bottom right, bottom left. */
export function cornersOf(box: Rect): Point[] {
  const right = box.x + box.width - 1;
  const bottom = box.y + box.height - 1;
  return [
    [box.x, box.y],
    [right, box.y],
    [right, bottom],
    [box.x, bottom],
  ];
}

const EDGE_STEPS = 16;

/** A box that holds the piece as laid down. Bending is undone only nearly, so bent pieces get some room. */
export function laidBox(lay: Lay, box: Rect, bent: boolean): Rect {
  const corners = cornersOf(box);
  let x0 = Infinity;
  let y0 = Infinity;
  let x1 = -Infinity;
  let y1 = -Infinity;
  for (let side = 0; side < 4; side++) {
    const [ax, ay] = corners[side]!;
    const [bx, by] = corners[(side + 1) % 4]!;
    for (let k = 0; k < EDGE_STEPS; k++) {
      const t = k / EDGE_STEPS;
      const [x, y] = lay.fromRest([ax + (bx - ax) * t, ay + (by - ay) * t]);
      x0 = Math.min(x0, x);
      y0 = Math.min(y0, y);
      x1 = Math.max(x1, x);
      y1 = Math.max(y1, y);
    }
  }
  const room = bent ? Math.ceil(Math.max(x1 - x0, y1 - y0) / 8) : 0;
  return grow(enclose(x0, y0, x1, y1), 2 + room);
}
