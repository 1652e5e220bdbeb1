import type { Plane } from '../raster/plane.js';

/** A place that can be found again: px of its plane, with sub-pixel position. */
export interface Corner {
  readonly x: number;
  readonly y: number;
  readonly strength: number;
}

/** px that corners keep from the border and, at the least, from each other. */
const BORDER = 12;
const APART = 4;

/**
 * Where the smaller eigenvalue of the structure tensor peaks (Shi, Tomasi, "Good Features to Track", CVPR 1994), spread
 * evenly: the picture is cut into cells and each gives its strongest.
 * @param strength that eigenvalue a pixel @param most how many in all
 */
export function cornersOf(
  strength: Float32Array,
  { width, height }: Pick<Plane, 'width' | 'height'>,
  most: number,
): Corner[] {
  return spread(peaks(strength, width, height), width, height, most);
}

function peaks(s: Float32Array, width: number, height: number): Corner[] {
  const found: Corner[] = [];
  for (let y = BORDER; y < height - BORDER; y++)
    for (let x = BORDER; x < width - BORDER; x++) {
      const p = y * width + x;
      const v = s[p]!;
      if (v < 0.5) continue;
      if (v < s[p - 1]! || v < s[p + 1]! || v < s[p - width]! || v < s[p + width]!) continue;
      if (
        v < s[p - width - 1]! ||
        v < s[p - width + 1]! ||
        v < s[p + width - 1]! ||
        v < s[p + width + 1]!
      )
        continue;
      const bx = s[p - 1]! - 2 * v + s[p + 1]!;
      const by = s[p - width]! - 2 * v + s[p + width]!;
      const dx = bx < 0 ? (0.5 * (s[p - 1]! - s[p + 1]!)) / bx : 0;
      const dy = by < 0 ? (0.5 * (s[p - width]! - s[p + width]!)) / by : 0;
      found.push({ x: x + dx, y: y + dy, strength: v });
    }
  return found.sort((one, other) => other.strength - one.strength);
}

/** The strongest of every cell, cell after cell, until there are enough. */
function spread(corners: readonly Corner[], width: number, height: number, most: number): Corner[] {
  const side = Math.max(3 * APART, Math.sqrt((width * height) / (most / 4)));
  const columns = Math.ceil(width / side);
  const cells = new Map<number, Corner[]>();
  for (const corner of corners) {
    const key = Math.floor(corner.y / side) * columns + Math.floor(corner.x / side);
    const cell = cells.get(key) ?? [];
    if (
      cell.length < 12 &&
      !cell.some((o) => Math.abs(o.x - corner.x) + Math.abs(o.y - corner.y) < APART)
    ) {
      cell.push(corner);
      cells.set(key, cell);
    }
  }
  const chosen: Corner[] = [];
  for (let rank = 0; rank < 12 && chosen.length < most; rank++)
    for (const cell of cells.values()) {
      const corner = cell[rank];
      if (corner && chosen.length < most) chosen.push(corner);
    }
  return chosen;
}
