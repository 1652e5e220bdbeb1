import type { Raster } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import { traceOutline } from '../shape/trace.js';
import { groundCells } from './ground-cells.js';

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

/** Width of the ring round a site, cells. */
const RING = 2;

/**
 * Splits the surroundings of a site into grounds: regions of cells, outlined and measured.
 * @param closed 1 = site, or otherwise not to be looked at
 */
export function findGrounds(window: Raster, closed: Uint8Array): Grounds {
  const { width, height } = window;
  const { cell, columns, rows, open, regions, count, colours } = groundCells(window, closed);
  const ringCells = ringOf(open, columns, rows);
  const inRing = ringCells.reduce((n, v) => n + v, 0);
  const labels = new Int8Array(width * height).fill(-1);
  for (let k = 0; k < regions.length; k++) {
    const [left, top] = [(k % columns) * cell, Math.floor(k / columns) * cell];
    for (let y = top; y < Math.min(height, top + cell); y++) {
      const end = y * width + Math.min(width, left + cell);
      for (let p = y * width + left; p < end; p++) if (!closed[p]) labels[p] = regions[k]!;
    }
  }
  const grounds = Array.from({ length: count }, (_, ground): Ground => {
    const mask = new Uint8Array(columns * rows);
    let first = -1;
    let ring = 0;
    let taken = 0;
    const sum = [0, 0, 0];
    for (let q = 0; q < mask.length; q++) {
      if (regions[q] !== ground) continue;
      mask[q] = 1;
      if (first < 0) first = q;
      taken++;
      ring += ringCells[q]!;
      for (let c = 0; c < 3; c++) sum[c]! += colours[3 * q + c]!;
    }
    return {
      outline: traceOutline(mask, columns, first).map(([x, y]) => [
        Math.min(width, Math.max(0, (x + 0.5) * cell)) - 0.5,
        Math.min(height, Math.max(0, (y + 0.5) * cell)) - 0.5,
      ]),
      area: taken / (columns * rows),
      ring: inRing ? ring / inRing : 0,
      colour: [0, 1, 2].map((c) => Math.round(sum[c]! / taken)) as [number, number, number],
    };
  });
  return { grounds, labels, cell };
}

function ringOf(open: Uint8Array, columns: number, rows: number): Uint8Array {
  const ring = new Uint8Array(open.length);
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < columns; x++) {
      if (open[y * columns + x]) continue;
      for (let b = Math.max(0, y - RING); b <= Math.min(rows - 1, y + RING); b++)
        for (let a = Math.max(0, x - RING); a <= Math.min(columns - 1, x + RING); a++)
          if (open[b * columns + a]) ring[b * columns + a] = 1;
    }
  return ring;
}
