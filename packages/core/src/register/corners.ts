import type { Plane } from '../raster/plane.js';
import { blurred } from '../raster/plane.js';

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
 * Corners by the smaller eigenvalue of the structure tensor (Shi, Tomasi, "Good Features to Track", CVPR 1994), spread
 * evenly: the picture is cut into cells and each gives its strongest.
 * @param most how many in all
 */
export function cornersOf(plane: Plane, most: number): Corner[] {
  const { width, height, values } = blurred(plane, 0.8);
  const strength = strengthOf(values, width, height);
  return spread(peaks(strength, width, height), width, height, most);
}

/** px on either side over which slopes are summed up. */
const AROUND = 2;

/** The smaller eigenvalue of the slopes' mean tensor at every pixel; 0 near the border. */
function strengthOf(values: Float32Array, width: number, height: number): Float32Array {
  const strength = new Float32Array(values.length);
  const kept = 2 * AROUND + 1;
  // Products of slopes, summed along the rows within reach, each row in its turn overwritten.
  const rows = Array.from({ length: kept }, () => new Float32Array(3 * width));
  const own = new Float32Array(3 * (width + 1));
  const sums = new Float64Array(3 * width);
  for (let y = 1; y < height - 1; y++) {
    let at = 3;
    for (let p = y * width + 1, end = (y + 1) * width - 1; p < end; p++, at += 3) {
      const gx = values[p + 1]! - values[p - 1]!;
      const gy = values[p + width]! - values[p - width]!;
      own[at] = gx * gx;
      own[at + 1] = gx * gy;
      own[at + 2] = gy * gy;
    }
    const row = rows[y % kept]!;
    const full = y > kept;
    for (let i = 3 * AROUND, last = 3 * (width - AROUND); i < last; i++) {
      const sum = own[i - 6]! + own[i - 3]! + own[i]! + own[i + 3]! + own[i + 6]!;
      sums[i]! += full ? sum - row[i]! : sum;
      row[i] = sum;
    }
    if (y < kept) continue;
    const to = (y - AROUND) * width;
    for (let x = AROUND, i = 3 * AROUND; x < width - AROUND; x++, i += 3) {
      const [a, b, c] = [sums[i]!, sums[i + 1]!, sums[i + 2]!];
      const diff = (a - c) / 2;
      strength[to + x] = ((a + c) / 2 - Math.sqrt(diff * diff + b * b)) / (kept * kept);
    }
  }
  return strength;
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
