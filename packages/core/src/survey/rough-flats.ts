import type { Layer } from '../raster/layers.js';
import { boxMean, halved } from '../raster/plane.js';
import { partsOf } from '../shape/parts.js';
import { SIDES } from '../shape/sides.js';
import type { Flat } from './flats.js';
import { flatWith } from './flats.js';
import { maskWhere } from '../shape/mask-where.js';

/** Halvings at which the noise of a scan, and what a compression rings with, are averaged away. */
const HALVINGS = 3;
/** How far a region may reach beyond its cells, cells. */
const BEYOND = 2;
/** How far a pixel's surroundings, and at the very edge a pixel itself, may be from the region's colour, levels. */
const LIKE = { around: 15, own: 28 } as const;
/** The mean over a pixel and its neighbours stops so many px short of an edge. */
const SHORT = 2;
/** What is enclosed in a region and no larger is noise in it, px. */
const CRUMB = 40;

/** A layer in which noise is averaged away, for regions to be found in. */
export function calmed(layer: Layer): Layer {
  let { grey, colours } = layer;
  for (let k = 0; k < HALVINGS; k++) [grey, colours] = [halved(grey), colours.map(halved)];
  return { grey, colours };
}

/** Finds the very pixels of regions of a calmed layer. */
export function refiner(layer: Layer): (region: Flat) => Flat | null {
  const planes = layer.colours.length ? layer.colours : [layer.grey];
  const around = planes.map((plane) => boxMean(plane, 1).values);
  const own = planes.map(({ values }) => values);
  return (region) => {
    const pixels = pixelsOf(region, layer, around, own);
    if (!pixels.length) return null;
    const flat = flatWith(pixels, layer);
    // Whether tone holds is told by means: noise is not uneven.
    return { ...flat, traits: { ...flat.traits, even: region.traits.even } };
  };
}

function pixelsOf(
  { pixels, colour }: Flat,
  { grey: { width, height } }: Layer,
  around: readonly Float32Array[],
  own: readonly Float32Array[],
): Int32Array {
  const w = Math.max(1, width >> HALVINGS);
  const h = Math.max(1, height >> HALVINGS);
  const cells = new Uint8Array(w * h);
  for (const q of pixels) cells[q] = 1;
  const within = cellsBeyond(cells, w, h);
  const cellOf = (p: number): number =>
    Math.min(h - 1, ((p / width) | 0) >> HALVINGS) * w + Math.min(w - 1, (p % width) >> HALVINGS);
  const isLike = (planes: readonly Float32Array[], p: number, most: number): boolean => {
    for (let c = 0; c < planes.length; c++)
      if (Math.abs(planes[c]![p]! - colour[c]!) > most) return false;
    return true;
  };
  const found = new Uint8Array(width * height);
  let edge: number[] = [];
  for (let p = 0; p < found.length; p++)
    if (cells[cellOf(p)] && isLike(around, p, LIKE.around)) {
      found[p] = 1;
      edge.push(p);
    }
  const grow = (rounds: number, holds: (p: number) => boolean): void => {
    for (let round = 0; round < rounds && edge.length; round++) {
      const next: number[] = [];
      for (const p of edge)
        for (const [dx, dy] of SIDES) {
          const [x, y] = [(p % width) + dx, ((p / width) | 0) + dy];
          if (x < 0 || y < 0 || x >= width || y >= height) continue;
          const q = y * width + x;
          if (found[q] || !within[cellOf(q)] || !holds(q)) continue;
          found[q] = 1;
          next.push(q);
        }
      edge = next;
    }
  };
  grow(BEYOND << HALVINGS, (p) => isLike(around, p, LIKE.around));
  edge = [];
  for (let p = found.indexOf(1); p >= 0; p = found.indexOf(1, p + 1)) edge.push(p);
  grow(SHORT, (p) => isLike(own, p, LIKE.own));
  return withoutCrumbs(found, within, cellOf, width);
}

/** Cells that a region may reach into. */
function cellsBeyond(cells: Uint8Array, width: number, height: number): Uint8Array {
  const near = boxMean({ width, height, values: new Float32Array(cells) }, BEYOND).values;
  return maskWhere(near.length, (k) => near[k]! > 1e-6);
}

/** The largest part of a region, with what is small and enclosed in it. */
function withoutCrumbs(
  found: Uint8Array,
  within: Uint8Array,
  cellOf: (p: number) => number,
  width: number,
): Int32Array {
  const parts = partsOf(found, width);
  if (!parts.length) return new Int32Array(0);
  const main = parts.reduce((most, part) => (part.length > most.length ? part : most));
  const inside = new Uint8Array(found.length);
  for (const p of main) inside[p] = 1;
  const open = maskWhere(inside.length, (p) => !inside[p] && within[cellOf(p)] === 1);
  for (const part of partsOf(open, width, false))
    if (part.length <= CRUMB) for (const p of part) inside[p] = 1;
  const pixels: number[] = [];
  for (let p = inside.indexOf(1); p >= 0; p = inside.indexOf(1, p + 1)) pixels.push(p);
  return Int32Array.from(pixels);
}
