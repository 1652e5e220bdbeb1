import { labOfSrgb } from '../colour/lab.js';
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
}

/** Cells along the window's longer side. */
const CELLS = 128;
const LEAST_CELL = 4;
/** Larger regions are kept apart by smaller differences (the k of Felzenszwalb and Huttenlocher), CIELAB units. */
const SCALE = 90;
/** How much a difference in texture counts beside colour. */
const TEXTURE = 1.5;
const SMALLEST = 0.025;
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
  const size = (r: number): number => regions.reduce((n, v) => n + (v === r ? 1 : 0), 0);
  order.sort((a, b) => size(b) - size(a));
  const number = new Map(order.slice(0, MOST).map((r, k) => [r, k]));
  const ringCells = ringOf(open, columns, rows);
  const inRing = ringCells.reduce((n, v) => n + v, 0);
  const labels = new Int8Array(width * height).fill(-1);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++)
      if (!closed[p])
        labels[p] =
          number.get(regions[Math.floor(y / cell) * columns + Math.floor(x / cell)]!) ?? -1;
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
  return { grounds, labels };
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
  const colours = colourChannels(channels);
  const scale = 255 / whiteOf(data);
  const open = new Uint8Array(columns * rows);
  const features: Feature[] = [];
  for (let cy = 0; cy < rows; cy++)
    for (let cx = 0; cx < columns; cx++) {
      const sum = [0, 0, 0];
      let steps = 0;
      let count = 0;
      for (let y = cy * cell; y < Math.min(height, (cy + 1) * cell); y++)
        for (let x = cx * cell; x < Math.min(width, (cx + 1) * cell); x++) {
          const p = y * width + x;
          if (closed[p]) continue;
          count++;
          for (let c = 0; c < 3; c++) sum[c]! += data[p * channels + (colours === 3 ? c : 0)]!;
          if (x + 1 < width) steps += Math.abs(data[p * channels]! - data[(p + 1) * channels]!);
        }
      const n = Math.max(1, count);
      const rgb = sum.map((v) => (v * scale) / n) as [number, number, number];
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
    const lab = [0, 0, 0];
    let texture = 0;
    let count = 0;
    for (let b = Math.max(0, y - 1); b <= Math.min(rows - 1, y + 1); b++)
      for (let a = Math.max(0, x - 1); a <= Math.min(columns - 1, x + 1); a++) {
        const q = b * columns + a;
        if (!open[q]) continue;
        count++;
        texture += features[q]!.texture;
        for (let c = 0; c < 3; c++) lab[c]! += features[q]!.lab[c]!;
      }
    if (!count) return own;
    const [L, A, B] = lab.map((v) => v / count) as [number, number, number];
    return { lab: [L, A, B], texture: texture / count, rgb: own.rgb };
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
  const edges: { a: number; b: number; w: number }[] = [];
  for (let y = 0, i = 0; y < rows; y++)
    for (let x = 0; x < columns; x++, i++) {
      if (!open[i]) continue;
      for (const j of [x + 1 < columns ? i + 1 : -1, y + 1 < rows ? i + columns : -1])
        if (j >= 0 && open[j]) edges.push({ a: i, b: j, w: unlike(features[i]!, features[j]!) });
    }
  edges.sort((p, q) => p.w - q.w);
  const unite = (a: number, b: number, w: number): void => {
    parent[b] = a;
    size[a]! += size[b]!;
    inner[a] = Math.max(w, inner[a]!, inner[b]!);
  };
  for (const { a, b, w } of edges) {
    const [i, j] = [find(a), find(b)];
    if (i === j) continue;
    if (w <= inner[i]! + SCALE / size[i]! && w <= inner[j]! + SCALE / size[j]!) unite(i, j, w);
  }
  const least = SMALLEST * features.length;
  for (const { a, b, w } of edges) {
    const [i, j] = [find(a), find(b)];
    if (i !== j && (size[i]! < least || size[j]! < least)) unite(i, j, w);
  }
  return Int32Array.from(features, (_, i) => (open[i] ? find(i) : -1));
}

function unlike(a: Feature, b: Feature): number {
  const [L, A, B] = [0, 1, 2].map((c) => a.lab[c]! - b.lab[c]!) as [number, number, number];
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
