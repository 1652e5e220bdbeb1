import { labOfSrgb } from '../colour/lab.js';
import { orderOf } from '../raster/order.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { traceOutline } from '../shape/trace.js';

/** A region of like colour and texture that may supply pixels. */
export interface Ground {
  /** Its outer border, px of the window. */
  readonly outline: readonly Point[];
  /** Share of the window, 0..1. */
  readonly area: number;
  /** Share of the site's ring that lies on it, 0..1. */
  readonly ring: number;
  /** Mean colour, 8-bit codes. */
  readonly colour: readonly [number, number, number];
}

/** Grounds, largest first, and which one each pixel belongs to. */
export interface Grounds {
  readonly grounds: readonly Ground[];
  /** Number of each pixel's ground; -1 in the site. One value a pixel of the window. */
  readonly labels: Int8Array;
  /** Side of the squares that grounds are made of, px; the first begins in the window's corner. */
  readonly cell: number;
}

/** Cells along the window's longer side. */
const CELLS = 128;
const LEAST_CELL = 4;
/** Larger regions are kept apart by smaller differences (the k of Felzenszwalb and Huttenlocher), CIELAB units. */
const SCALE = 90;
/** How much a difference in texture counts beside colour. */
const TEXTURE = 1.5;
const SMALLEST = 0.025;
/** Steps in a unit that differences are ordered by. */
const FINE = 1 << 24;
const MOST = 24;
const RING_CELLS = 2;

/**
 * Splits the surroundings of a site into grounds: Felzenszwalb and Huttenlocher, "Efficient Graph-Based Image
 * Segmentation", IJCV 59(2), 2004, on cells of some pixels with mean CIELAB colour and texture; small regions join the
 * neighbour they are most like.
 * @param closed 1 = site, or otherwise not to be looked at
 */
export function findGrounds(window: Raster, closed: Uint8Array): Grounds {
  const { width, height } = window;
  const cell = Math.max(LEAST_CELL, Math.ceil(Math.max(width, height) / CELLS));
  const columns = Math.ceil(width / cell);
  const rows = Math.ceil(height / cell);
  const { features: single, open } = featuresOf(window, closed, cell, columns, rows);
  const features = smoothed(single, open, columns, rows);
  const regions = join(features, open, columns, rows);
  const order = [...new Set(regions)].filter((r) => r >= 0);
  const sizes = new Map(order.map((r) => [r, 0]));
  for (const r of regions) if (r >= 0) sizes.set(r, sizes.get(r)! + 1);
  order.sort((a, b) => sizes.get(b)! - sizes.get(a)!);
  const number = new Map(order.slice(0, MOST).map((r, k) => [r, k]));
  const ringCells = ringOf(open, columns, rows);
  const inRing = ringCells.reduce((n, v) => n + v, 0);
  const labels = new Int8Array(width * height).fill(-1);
  for (let k = 0; k < regions.length; k++) {
    const label = number.get(regions[k]!) ?? -1;
    const [left, top] = [(k % columns) * cell, Math.floor(k / columns) * cell];
    for (let y = top; y < Math.min(height, top + cell); y++) {
      const end = y * width + Math.min(width, left + cell);
      for (let p = y * width + left; p < end; p++) if (!closed[p]) labels[p] = label;
    }
  }
  const grounds = [...number.keys()].map((r): Ground => {
    const mask = new Uint8Array(columns * rows);
    let first = -1;
    let ring = 0;
    let count = 0;
    const sum = [0, 0, 0];
    for (let q = 0; q < mask.length; q++) {
      if (regions[q] !== r) continue;
      mask[q] = 1;
      if (first < 0) first = q;
      count++;
      ring += ringCells[q]!;
      for (let c = 0; c < 3; c++) sum[c]! += features[q]!.rgb[c]!;
    }
    return {
      outline: traceOutline(mask, columns, first).map(([x, y]) => [
        Math.min(width, Math.max(0, (x + 0.5) * cell)) - 0.5,
        Math.min(height, Math.max(0, (y + 0.5) * cell)) - 0.5,
      ]),
      area: count / (columns * rows),
      ring: inRing ? ring / inRing : 0,
      colour: [0, 1, 2].map((c) => Math.round(sum[c]! / count)) as [number, number, number],
    };
  });
  return { grounds, labels, cell };
}

interface Feature {
  readonly lab: readonly [number, number, number];
  readonly texture: number;
  readonly rgb: readonly [number, number, number];
}

function featuresOf(
  { width, height, channels, data }: Raster,
  closed: Uint8Array,
  cell: number,
  columns: number,
  rows: number,
): { features: Feature[]; open: Uint8Array } {
  const [green, blue] = colourChannels(channels) === 3 ? [1, 2] : [0, 0];
  const scale = 255 / whiteOf(data);
  const open = new Uint8Array(columns * rows);
  const features: Feature[] = [];
  for (let cy = 0; cy < rows; cy++)
    for (let cx = 0; cx < columns; cx++) {
      let [count, red, greens, blues, steps] = [0, 0, 0, 0, 0];
      for (let y = cy * cell; y < Math.min(height, (cy + 1) * cell); y++) {
        const last = (y + 1) * width - 1;
        const end = Math.min(last + 1, y * width + (cx + 1) * cell);
        for (let p = y * width + cx * cell; p < end; p++) {
          if (closed[p]) continue;
          const i = p * channels;
          count++;
          red += data[i]!;
          greens += data[i + green]!;
          blues += data[i + blue]!;
          if (p < last) steps += Math.abs(data[i]! - data[i + channels]!);
        }
      }
      const n = Math.max(1, count);
      const rgb = [(red * scale) / n, (greens * scale) / n, (blues * scale) / n] as const;
      const { L, a, b } = labOfSrgb(rgb[0] / 255, rgb[1] / 255, rgb[2] / 255);
      if (count * 2 >= cell * cell || count >= 8) open[cy * columns + cx] = 1;
      features.push({ lab: [L, a, b], texture: (steps * scale) / n, rgb });
    }
  return { features, open };
}

/** Features as means over neighbouring cells: a pattern is one ground, not many. */
function smoothed(
  features: readonly Feature[],
  open: Uint8Array,
  columns: number,
  rows: number,
): Feature[] {
  return features.map((own, i) => {
    const x = i % columns;
    const y = Math.floor(i / columns);
    let [count, L, A, B, texture] = [0, 0, 0, 0, 0];
    for (let b = Math.max(0, y - 1); b <= Math.min(rows - 1, y + 1); b++)
      for (let a = Math.max(0, x - 1); a <= Math.min(columns - 1, x + 1); a++) {
        const q = b * columns + a;
        if (!open[q]) continue;
        const { lab, texture: more } = features[q]!;
        count++;
        texture += more;
        L += lab[0];
        A += lab[1];
        B += lab[2];
      }
    if (!count) return own;
    const lab = [L / count, A / count, B / count] as const;
    return { lab, texture: texture / count, rgb: own.rgb };
  });
}

/** Number of each cell's region; -1 where the site lies. */
function join(
  features: readonly Feature[],
  open: Uint8Array,
  columns: number,
  rows: number,
): Int32Array {
  const parent = Int32Array.from(features, (_, i) => i);
  const size = new Int32Array(features.length).fill(1);
  const inner = new Float64Array(features.length);
  const find = (i: number): number => {
    let root = i;
    while (parent[root] !== root) root = parent[root]!;
    while (parent[i] !== root) {
      const next = parent[i]!;
      parent[i] = root;
      i = next;
    }
    return root;
  };
  const pairs: number[] = [];
  const weights: number[] = [];
  for (let y = 0, i = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, i++) {
      if (!open[i]) continue;
      for (const j of [x + 1 < columns ? i + 1 : -1, y + 1 < rows ? i + columns : -1])
        if (j >= 0 && open[j]) {
          pairs.push(i, j);
          weights.push(unlike(features[i]!, features[j]!));
        }
    }
  const order = orderOf(weights, FINE);
  const unite = (a: number, b: number, w: number): void => {
    parent[b] = a;
    size[a]! += size[b]!;
    inner[a] = Math.max(w, inner[a]!, inner[b]!);
  };
  for (const k of order) {
    const [i, j, w] = [find(pairs[2 * k]!), find(pairs[2 * k + 1]!), weights[k]!];
    if (i === j) continue;
    if (w <= inner[i]! + SCALE / size[i]! && w <= inner[j]! + SCALE / size[j]!) unite(i, j, w);
  }
  const least = SMALLEST * features.length;
  for (const k of order) {
    const [i, j] = [find(pairs[2 * k]!), find(pairs[2 * k + 1]!)];
    if (i !== j && (size[i]! < least || size[j]! < least)) unite(i, j, weights[k]!);
  }
  return Int32Array.from(features, (_, i) => (open[i] ? find(i) : -1));
}

function unlike(a: Feature, b: Feature): number {
  const [L, A, B] = [a.lab[0] - b.lab[0], a.lab[1] - b.lab[1], a.lab[2] - b.lab[2]];
  const t = TEXTURE * (a.texture - b.texture);
  return Math.sqrt(L * L + A * A + B * B + t * t);
}

function ringOf(open: Uint8Array, columns: number, rows: number): Uint8Array {
  const ring = new Uint8Array(open.length);
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      if (open[y * columns + x]) continue;
      for (let b = Math.max(0, y - RING_CELLS); b <= Math.min(rows - 1, y + RING_CELLS); b++)
        for (let a = Math.max(0, x - RING_CELLS); a <= Math.min(columns - 1, x + RING_CELLS); a++)
          if (open[b * columns + a]) ring[b * columns + a] = 1;
    }
  return ring;
}
