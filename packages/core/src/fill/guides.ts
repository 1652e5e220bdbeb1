import type { Raster } from '../raster/raster.js';
import { whiteOf } from '../raster/raster.js';
import { deepestOf } from '../shape/depth.js';
import type { Point } from '../shape/site.js';
import type { Field } from './field.js';
import { MOST } from './level.js';

/** A line of structure, an edge or a bar, that goes on across the hole: a smooth curve through these points. */
export interface GuideLine {
  readonly points: readonly Point[];
}

/** What guides say of hole pixels at the finest level. */
export interface GuidePaths {
  readonly width: number;
  readonly pixels: Int32Array;
  /** Three values a pixel, in quarters of an 8-bit code. */
  readonly colours: Float32Array;
  /** 1 on the curve, falling to 0 at the rim of its band. */
  readonly weights: Float32Array;
}

/** px between points of a curve. */
const STEP = 0.5;
/** How far outside the hole an edge's profile is read along the curve, px. */
const READ = { from: 1, to: 10 } as const;
/** Deviation along an edge, quarters of a code, from which on its profile says little: what varies there is texture. */
const VARIES = 48;
/** So near to the edge, px, its profile counts all the same: there the edge itself is what varies. */
const NEAR = 8;
/** Curves are carried on straight by so much at either end, px. */
const BEYOND = 24;

/**
 * Carries the profiles of edges into the hole: across the curve colour is read on known ground where it enters and
 * leaves, and in between passes from one to the other (structure before texture, after Sun et al., "Image Completion
 * with Structure Propagation", SIGGRAPH 2005).
 * @param hole 1 = to be filled
 */
export function guidePaths(
  window: Raster,
  hole: Uint8Array,
  guides: readonly GuideLine[],
): GuidePaths {
  const { width, height } = window;
  const half = Math.min(32, Math.max(5, Math.round(0.6 * deepestOf(hole, width, height))));
  const painted = new Painted(hole.length);
  for (const guide of guides) {
    const curve = sampledGuide(guide.points);
    const inside = curve.map(([x, y]) => holeAt(hole, width, height, x, y));
    for (let from = inside.indexOf(true); from >= 0;) {
      let to = from;
      while (to + 1 < curve.length && inside[to + 1]) to++;
      paintRun(window, hole, curve, from, to, half, painted);
      from = inside.indexOf(true, to + 1);
    }
  }
  return { width, ...painted.inOrder() };
}

/** What was painted, of every pixel with the greatest weight. */
class Painted {
  /** Of every pixel, one more than its place in the lists; 0 where nothing was painted. */
  private readonly places: Int32Array;
  private readonly weights: number[] = [];
  private readonly colours: number[] = [];

  constructor(size: number) {
    this.places = new Int32Array(size);
  }

  weightAt(p: number): number {
    return this.weights[this.places[p]! - 1] ?? 0;
  }

  paint(p: number, weight: number, colour: Float64Array): void {
    const at = (this.places[p] ||= this.weights.push(0));
    this.weights[at - 1] = weight;
    for (let c = 0; c < 3; c++) this.colours[3 * at - 3 + c] = colour[c]!;
  }

  /** All of it, in reading order. */
  inOrder(): Omit<GuidePaths, 'width'> {
    const count = this.weights.length;
    const [pixels, weights] = [new Int32Array(count), new Float32Array(count)];
    const colours = new Float32Array(3 * count);
    for (let p = 0, k = 0; k < count; p++) {
      const at = this.places[p]! - 1;
      if (at < 0) continue;
      pixels[k] = p;
      weights[k] = this.weights[at]!;
      for (let c = 0; c < 3; c++) colours[3 * k + c] = this.colours[3 * at + c]!;
      k++;
    }
    return { pixels, colours, weights };
  }
}

/**
 * What draws a level's hole pixels towards the guides.
 * @param k how often the level was halved
 * @returns a function that pulls with a strength 0..1; null where no guide reaches the level's hole
 */
export function guidePull(
  { level }: Field,
  { width, pixels, colours, weights }: GuidePaths,
  k: number,
): ((strength: number) => void) | null {
  const places = new Int32Array(level.hole.length);
  const reached: number[] = [];
  // Three colours by their weights, the weights, and how many they are.
  const sums = new Float64Array(5 * pixels.length);
  for (let i = 0; i < pixels.length; i++) {
    const y = Math.floor(pixels[i]! / width);
    const [u, v] = [(pixels[i]! - y * width) >> k, y >> k];
    if (u >= level.width || v >= level.height) continue;
    const q = v * level.width + u;
    if (!level.hole[q]) continue;
    const at = 5 * ((places[q] ||= reached.push(q)) - 1);
    const w = weights[i]!;
    for (let c = 0; c < 3; c++) sums[at + c]! += w * colours[3 * i + c]!;
    sums[at + 3]! += w;
    sums[at + 4]!++;
  }
  if (!reached.length) return null;
  return (strength) => {
    for (let i = 0, at = 0; i < reached.length; i++, at += 5) {
      const weight = sums[at + 3]!;
      if (!(weight > 0)) continue;
      const share = (strength * weight) / sums[at + 4]!;
      for (let c = 0, j = 4 * reached[i]!; c < 3; c++, j++) {
        const now = level.pixels[j]!;
        level.pixels[j] = now + share * (sums[at + c]! / weight - now) + 0.5;
      }
    }
  };
}

function paintRun(
  window: Raster,
  hole: Uint8Array,
  curve: readonly Point[],
  from: number,
  to: number,
  half: number,
  painted: Painted,
): void {
  const { width, height } = window;
  const before = profile(window, hole, curve, from, -1, half);
  const after = profile(window, hole, curve, to, 1, half);
  const [early, late] = [before ?? after, after ?? before];
  if (!early || !late) return;
  const colour = new Float64Array(3);
  for (let i = from; i <= to; i++) {
    const [nx, ny] = normalAt(curve, i);
    const [cx, cy] = curve[i]!;
    const share = to > from ? (i - from) / (to - from) : 0.5;
    for (let k = 0; k <= 4 * half; k++) {
      const off = (k - 2 * half) / 2;
      const x = Math.round(cx + off * nx);
      const y = Math.round(cy + off * ny);
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const p = y * width + x;
      if (!hole[p]) continue;
      const a = early.steady[k] ? early : late;
      const b = late.steady[k] ? late : early;
      const steady = a.steady[k]! + share * (b.steady[k]! - a.steady[k]!);
      if (!steady) continue;
      const near = Math.max(0, 1 - Math.abs(off) / NEAR);
      const weight = (1 - Math.abs(off) / (half + 1)) * (near + (1 - near) * steady);
      if (painted.weightAt(p) >= weight) continue;
      for (let c = 3 * k; c < 3 * k + 3; c++)
        colour[c - 3 * k] = a.colours[c]! + share * (b.colours[c]! - a.colours[c]!);
      painted.paint(p, weight, colour);
    }
  }
}

/** What is seen along an edge, half a px after half a px across it. */
interface Profile {
  /** Means of three values, in quarters of an 8-bit code. */
  readonly colours: Float64Array;
  /** 1 where it is the same all along, towards 0 the more it varies; 0 where nothing is seen. */
  readonly steady: Float64Array;
}

/** What is seen across the curve on known ground just outside a run; null where there is none. */
function profile(
  { width, height, channels, data }: Raster,
  hole: Uint8Array,
  curve: readonly Point[],
  end: number,
  way: 1 | -1,
  half: number,
): Profile | null {
  const scale = MOST / whiteOf(data);
  const [green, blue] = channels >= 3 ? [1, 2] : [0, 0];
  const colours = new Float64Array(3 * (4 * half + 1));
  const steady = new Float64Array(4 * half + 1);
  let found = false;
  for (let k = 0; k < steady.length; k++) {
    const off = (k - 2 * half) / 2;
    let [r, g, b, squares, count] = [0, 0, 0, 0, 0];
    for (let s = READ.from / STEP; s <= READ.to / STEP; s++) {
      const i = end + way * s;
      if (i < 0 || i >= curve.length) break;
      const [nx, ny] = normalAt(curve, i);
      const x = Math.round(curve[i]![0] + off * nx);
      const y = Math.round(curve[i]![1] + off * ny);
      if (x < 0 || y < 0 || x >= width || y >= height || hole[y * width + x]) continue;
      const p = (y * width + x) * channels;
      const [red, greens, blues] = [
        data[p]! * scale,
        data[p + green]! * scale,
        data[p + blue]! * scale,
      ];
      r += red;
      g += greens;
      b += blues;
      squares = squares + red * red + greens * greens + blues * blues;
      count++;
    }
    if (!count) continue;
    found = true;
    [r, g, b] = [r / count, g / count, b / count];
    colours.set([r, g, b], 3 * k);
    const variance = Math.max(0, squares / count - (r * r + g * g + b * b)) / 3;
    steady[k] = 1 / (1 + variance / (VARIES * VARIES));
  }
  return found ? { colours, steady } : null;
}

/** The curve at even steps: Catmull-Rom through the points, carried on straight at both ends. */
export function sampledGuide(points: readonly Point[]): Point[] {
  const first = points[0]!;
  const last = points[points.length - 1]!;
  const carried = [
    beyond(points[1] ?? first, first),
    ...points,
    beyond(points[points.length - 2] ?? last, last),
  ];
  const at = (k: number): Point => carried[Math.min(carried.length - 1, Math.max(0, k))]!;
  const curve: Point[] = [];
  for (let k = 0; k + 1 < carried.length; k++) {
    const [a, b, c, d] = [at(k - 1), at(k), at(k + 1), at(k + 2)];
    const length = distance(b, c);
    const steps = Math.max(1, Math.round(length / STEP));
    for (let s = 0; s < steps; s++) {
      const t = s / steps;
      curve.push([catmull(a[0], b[0], c[0], d[0], t), catmull(a[1], b[1], c[1], d[1], t)]);
    }
  }
  return curve;
}

function beyond(from: Point, to: Point): Point {
  const length = Math.max(1e-6, distance(from, to));
  return [
    to[0] + ((to[0] - from[0]) * BEYOND) / length,
    to[1] + ((to[1] - from[1]) * BEYOND) / length,
  ];
}

function catmull(a: number, b: number, c: number, d: number, t: number): number {
  return b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));
}

function normalAt(curve: readonly Point[], i: number): Point {
  const a = curve[Math.max(0, i - 4)]!;
  const b = curve[Math.min(curve.length - 1, i + 4)]!;
  const length = Math.max(1e-6, distance(a, b));
  return [-(b[1] - a[1]) / length, (b[0] - a[0]) / length];
}

function distance(a: Point, b: Point): number {
  const x = b[0] - a[0];
  const y = b[1] - a[1];
  return Math.sqrt(x * x + y * y);
}

function holeAt(hole: Uint8Array, width: number, height: number, x: number, y: number): boolean {
  const px = Math.round(x);
  const py = Math.round(y);
  return px >= 0 && py >= 0 && px < width && py < height && hole[py * width + px] === 1;
}
