import { ciede2000 } from '../colour/ciede2000.js';
import { labOfSrgb } from '../colour/lab.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import { deepestOf, depthsOf } from '../shape/depth.js';
import { solveSmall } from '../solve/small.js';
import { medianOf } from '../raster/median.js';

/** The strong edge nearest to a site. */
export interface NearEdge {
  /** From the site's border, px; 0 where it runs into the site. */
  readonly distance: number;
  /** CIEDE2000 between its two sides. */
  readonly contrast: number;
}

/** What is measured of a site and its surroundings before a method is advised. */
export interface SiteFacts {
  /** Width of what differs from the surroundings inside the site, px; null when nothing stands out. */
  readonly defectWidth: number | null;
  /** Width of the site where it is widest, px, and its area. */
  readonly width: number;
  readonly area: number;
  /** Length of the site over its width. */
  readonly slenderness: number;
  readonly edge: NearEdge | null;
  /** Whether an edge enters the site on one side and leaves it on another. */
  readonly crossed: boolean;
  /** Standard deviation of luma around its local mean in the surroundings, 8-bit codes. */
  readonly texture: number;
}

/** Edges are looked for so far around, px. */
const SIGHT = 28;
/** An edge is strong from this CIEDE2000 on, and this many times the texture. */
const STRONG = 12;
const OVER_TEXTURE = 3;
/** Half the distance over which an edge's two sides are compared, px. */
const SPAN = 3;
/** What differs from its surroundings by so many deviations stands out. */
const STANDS_OUT = 3.5;
/** Share of the site's pixels that differ more than its peak, which a few grains should not make. */
const PEAK = 0.03;
/** Width of the surroundings that tell the tone the site should have, px. */
const RING = 6;

/**
 * Measures a site: how wide what is wrong is, how rough its surroundings are, and the strong edge nearest to it.
 * @param window the picture around the site, at least {@link SIGHT} px where it goes on
 * @param site 1 = covered
 */
export function siteFacts(window: Raster, site: Uint8Array): SiteFacts {
  const { width, height } = window;
  const luma = lumaOf(window);
  const away = depthsOf(
    site.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  const area = site.reduce((sum, v) => sum + v, 0);
  const broad = 2 * deepestOf(site, width, height) - 1;
  const texture = textureAround(luma, site, away, width, height);
  const { edge, crossed } = edgesAround(window, luma, site, away, texture);
  return {
    defectWidth: defectWidth(luma, site, away, texture, width, height),
    width: broad,
    area,
    slenderness: area / Math.max(1, broad * broad),
    edge,
    crossed,
    texture,
  };
}

function lumaOf({ width, height, channels, data }: Raster): Float32Array {
  const scale = 255 / whiteOf(data);
  const luma = new Float32Array(width * height);
  for (let p = 0; p < luma.length; p++) {
    const i = p * channels;
    luma[p] =
      (channels >= 3 ? 0.299 * data[i]! + 0.587 * data[i + 1]! + 0.114 * data[i + 2]! : data[i]!) *
      scale;
  }
  return luma;
}

/** Spread of the differences from the mean of the four neighbours; edges, being few, do not count in a median. */
function textureAround(
  luma: Float32Array,
  site: Uint8Array,
  away: Float32Array,
  width: number,
  height: number,
): number {
  const off: number[] = [];
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      if (away[p]! < 2 || away[p]! > SIGHT || site[p]) continue;
      const mean = (luma[p - 1]! + luma[p + 1]! + luma[p - width]! + luma[p + width]!) / 4;
      off.push(Math.abs(luma[p]! - mean));
    }
  // The difference from a mean of four has 5/4 of the variance.
  return (1.4826 * medianOf(off)) / Math.sqrt(1.25);
}

function edgesAround(
  window: Raster,
  luma: Float32Array,
  site: Uint8Array,
  away: Float32Array,
  texture: number,
): { edge: NearEdge | null; crossed: boolean } {
  const { width, height } = window;
  const known = (p: number): boolean => !site[p];
  let edge: NearEdge | null = null;
  const touching: [number, number][] = [];
  for (let y = SPAN; y < height - SPAN; y++) {
    for (let x = SPAN; x < width - SPAN; x++) {
      const p = y * width + x;
      const d = away[p]!;
      if (d < 1 || d > SIGHT) continue;
      const gx = luma[p + 1]! - luma[p - 1]!;
      const gy = luma[p + width]! - luma[p - width]!;
      const steep = Math.sqrt(gx * gx + gy * gy);
      if (steep < 6 || steep < OVER_TEXTURE * texture) continue;
      const ux = Math.round((SPAN * gx) / steep);
      const uy = Math.round((SPAN * gy) / steep);
      const a = p + uy * width + ux;
      const b = p - uy * width - ux;
      if (![a, b, p - 1, p + 1, p - width, p + width].every(known)) continue;
      const contrast = ciede2000(labAt(window, a), labAt(window, b));
      if (contrast < STRONG) continue;
      if (d <= SPAN + 1.5) touching.push([x, y]);
      if (!edge || d < edge.distance || (d < edge.distance + 1 && contrast > edge.contrast))
        edge = { distance: d, contrast };
    }
  }
  const near = edge as NearEdge | null;
  // The pixels next to the site cannot be judged, as one side of them is unknown.
  const reached = near && { ...near, distance: Math.max(0, near.distance - SPAN - 0.5) };
  return { edge: reached, crossed: groups(touching) >= 2 };
}

/** How many separate bunches points make. */
function groups(points: readonly [number, number][]): number {
  const open = new Set(points.map((_, i) => i));
  let count = 0;
  while (open.size) {
    count++;
    const stack = [open.values().next().value!];
    open.delete(stack[0]!);
    while (stack.length) {
      const [x, y] = points[stack.pop()!]!;
      for (const j of open) {
        if (Math.abs(points[j]![0] - x) > 4 || Math.abs(points[j]![1] - y) > 4) continue;
        open.delete(j);
        stack.push(j);
      }
    }
  }
  return count;
}

/** What stands out from the plane of tone through the surroundings, and how wide that is. */
function defectWidth(
  luma: Float32Array,
  site: Uint8Array,
  away: Float32Array,
  texture: number,
  width: number,
  height: number,
): number | null {
  const ring: number[] = [];
  for (let p = 0; p < site.length; p++) if (!site[p] && away[p]! <= RING) ring.push(p);
  if (!ring.length) return null;
  const plane = planeThrough(ring, luma, width);
  const off = (p: number): number => Math.abs(luma[p]! - plane(p));
  const spread = Math.max(1.5, texture, 1.4826 * medianOf(ring.map(off)));
  const inside: number[] = [];
  for (let p = 0; p < site.length; p++) if (site[p]) inside.push(off(p));
  const peak = inside.sort((a, b) => b - a)[Math.floor(inside.length * PEAK)] ?? 0;
  if (peak < STANDS_OUT * spread) return null;
  // Down to its soft border, which must be covered too.
  const border = Math.max(2 * spread, peak / 4);
  const wrong = new Uint8Array(site.length);
  let count = 0;
  for (let p = 0; p < site.length; p++)
    if (site[p] && off(p) > border) {
      wrong[p] = 1;
      count++;
    }
  return count ? Math.max(1, 2 * deepestOf(wrong, width, height) - 1) : null;
}

/** Least squares plane of luma through pixels, twice: the second time without what lies far off the first. */
function planeThrough(
  pixels: readonly number[],
  luma: Float32Array,
  width: number,
): (p: number) => number {
  let fit = [medianOf(pixels.map((p) => luma[p]!)), 0, 0];
  const value = (p: number): number =>
    fit[0]! + fit[1]! * (p % width) + fit[2]! * Math.floor(p / width);
  for (let round = 0; round < 3; round++) {
    const limit = 2.5 * 1.4826 * medianOf(pixels.map((p) => Math.abs(luma[p]! - value(p)))) + 1;
    const a = [0, 1, 2].map(() => [0, 0, 0]);
    const b = [0, 0, 0];
    for (const p of pixels) {
      if (Math.abs(luma[p]! - value(p)) > limit) continue;
      const row = [1, p % width, Math.floor(p / width)];
      for (let i = 0; i < 3; i++) {
        for (let j = 0; j < 3; j++) a[i]![j]! += row[i]! * row[j]!;
        b[i]! += row[i]! * luma[p]!;
      }
    }
    fit = solveSmall(a, b);
  }
  return value;
}

function labAt({ channels, data }: Raster, p: number) {
  const white = whiteOf(data);
  const colours = colourChannels(channels);
  const at = (c: number): number => data[p * channels + (colours === 3 ? c : 0)]! / white;
  return labOfSrgb(at(0), at(1), at(2));
}
