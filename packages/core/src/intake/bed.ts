import { layerAt } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';
import { hullOfPixels, leastRectangle } from '../shape/hull.js';
import { closed, opened } from '../shape/narrowed.js';
import { partsOf } from '../shape/parts.js';
import { withoutHoles } from '../shape/without-holes.js';
import type { Point } from '../shape/site.js';
import { paperEdge } from './paper-edge.js';
import type { Line, Quad } from './quad.js';
import { crossing, inReadingOrder, sidesOf } from './quad.js';
import { maskWhere } from '../shape/mask-where.js';

/** One print on a scanner's bed or in a copy shot. */
export interface FoundPrint {
  /** Corners of the paper, px. */
  readonly quad: Quad;
  /** How many of its sides were found as straight paper edges; the others are where its tone ends. */
  readonly edges: number;
}

/** Longest side the first look is taken at, px. */
const LONGEST = 1000;
/** Off an even ground from this limit on, 8-bit levels, white paper on white glass may have been missed. */
const FAINT = 14;
/** A print takes at least this share of the picture. */
const SMALLEST = 0.008;

/**
 * Prints that lie on an even ground, each with the quadrilateral of its paper's edge, in reading order. Where the
 * ground ends is found by tone in a small copy; then every side is measured at full size ({@link paperEdge}).
 */
export function printsOn(picture: Raster): FoundPrint[] {
  const longest = Math.max(picture.width, picture.height);
  const level = Math.max(0, Math.ceil(Math.log2(longest / LONGEST)));
  const { grey, colours } = layerAt(picture, level);
  const planes = (colours.length ? colours : [grey]).map((p) => blurred(p, 1));
  const { mask, limit } = offGround(planes);
  const scale = 1 << level;
  const up = (v: number): number => (v + 0.5) * scale - 0.5;
  const prints = bodiesOf(mask, grey.width).map((hull) => {
    const { quad } = leastRectangle(hull);
    return measured(
      picture,
      quad.map(([x, y]): Point => [up(x), up(y)]) as unknown as Quad,
      scale,
      limit,
    );
  });
  return inReadingOrder(prints.filter((p, k) => !prints.some((q, j) => j < k && sameAs(p, q))));
}

/** 1 where the picture is not the ground: the ground is what stands along most of the border, and what is like it. */
function offGround(planes: readonly Plane[]): { mask: Uint8Array; limit: number } {
  const { width, height } = planes[0]!;
  const rim: number[] = [];
  const deep = Math.max(3, Math.round(0.008 * Math.min(width, height)));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (x < deep || y < deep || x >= width - deep || y >= height - deep) rim.push(y * width + x);
  const ground = planes.map(({ values }) => medianOf(rim.map((p) => values[p]!)));
  const off = new Float32Array(width * height);
  planes.forEach(({ values }, c) => {
    for (let p = 0; p < off.length; p++)
      off[p] = Math.max(off[p]!, Math.abs(values[p]! - ground[c]!));
  });
  const usual = medianOf(rim.map((p) => off[p]!));
  const limit = Math.max(7, 4 * usual);
  return { mask: maskWhere(off.length, (p) => off[p]! > limit), limit };
}

/** Hulls of the large bodies of a mask; holes do not matter, thin bridges (shadows, hairs) are cut. */
function bodiesOf(mask: Uint8Array, width: number): Point[][] {
  const height = mask.length / width;
  const thin = Math.max(2, Math.round(0.006 * Math.max(width, height)));
  const whole = withoutHoles(closed(mask, width, height, thin), width);
  return partsOf(opened(whole, width, height, 2 * thin), width)
    .filter((part) => part.length > SMALLEST * mask.length)
    .map((part) => hullOfPixels(part, width));
}

/** Every side measured at full size; twice, since the first look may be some px off. */
function measured(picture: Raster, guess: Quad, scale: number, limit: number): FoundPrint {
  let quad = guess;
  let edges = 0;
  // On a busy ground, nothing fainter than it was missed at the first look, and no fainter step is paper's.
  const least = limit < FAINT ? 0 : limit;
  // Such a print was photographed, not scanned: its sides need not be square to each other.
  const turn = least ? 6 : 2.5;
  for (const pass of [0, 1]) {
    const short = Math.min(...sidesOf(quad));
    const near = 0.01 * short + 12;
    const wide = 0.06 * short + 4 * scale;
    const first = pass === 0;
    const outward = (first && !least ? wide : near) + 20;
    const search = { outward, inward: (first ? wide : near) + 20, turn: first ? turn : 0.4, least };
    edges = 0;
    const lines = quad.map((p, k): Line => {
      const q = quad[(k + 1) % 4]!;
      const edge = paperEdge(picture, p, q, search);
      if (edge) edges++;
      return edge?.line ?? lineThrough(p, q);
    });
    quad = lines.map((line, k) => crossing(lines[(k + 3) % 4]!, line)) as unknown as Quad;
  }
  return { quad, edges };
}

function lineThrough(p: Point, q: Point): Line {
  const length = Math.sqrt((q[0] - p[0]) ** 2 + (q[1] - p[1]) ** 2);
  const [nx, ny] = [(q[1] - p[1]) / length, -(q[0] - p[0]) / length];
  return { nx, ny, d: nx * p[0] + ny * p[1] };
}

function sameAs(a: FoundPrint, b: FoundPrint): boolean {
  const short = Math.min(...sidesOf(a.quad));
  return a.quad.every((p, k) => {
    const q = b.quad[k]!;
    return Math.abs(p[0] - q[0]) + Math.abs(p[1] - q[1]) < 0.2 * short;
  });
}
