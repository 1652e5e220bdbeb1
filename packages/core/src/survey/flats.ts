import type { Layer } from '../raster/layers.js';
import { SIDES } from '../shape/sides.js';

/** A region of near-even colour, and what its border is like. */
export interface Flat {
  /** Pixels in reading order. */
  readonly pixels: Int32Array;
  /** Mean of every channel, 0..255. */
  readonly colour: readonly number[];
  readonly traits: FlatTraits;
}

export interface FlatTraits {
  /** Share of the picture. */
  readonly share: number;
  /** Share of its pixels whose colour is within two levels of the region's own middle. */
  readonly even: number;
  /** px of the picture's border it takes, over the picture's shorter side. */
  readonly border: number;
  /** How many of the picture's corners it takes. */
  readonly corners: number;
  /** Share of its edge with a bright fringe of a few px beyond it. */
  readonly fringe: number;
  /** Share of its edge that is a clear step, and the middle step over the edge, grey levels. */
  readonly cut: number;
  readonly step: number;
  /** Share of its edge beyond which its own tone goes on: it is only cut by a line. */
  readonly resumes: number;
  /** Twice its area over its edge, a measure of its breadth, over the picture's shorter side. */
  readonly breadth: number;
  /** Edge length over that of the convex shape of the same extent: jagged edges are long. */
  readonly ragged: number;
  readonly grey: number;
}

/** How far a pixel may be from its neighbour and from the region's start, levels of the furthest channel. */
const NEXT = 7;
const WHOLE = 15;
/** Half the side of the square that has to be even where a region begins, px, and by how much it may vary, levels. */
const SEED = 2;
const SPREAD = 12;
const SMALLEST = 0.0004;

/** Regions of near-even colour that grow from a picture's border. */
export function flatsFromBorder(layer: Layer): Flat[] {
  const { width, height } = layer.grey;
  const seen = new Uint8Array(width * height);
  const flats: Flat[] = [];
  const start = (p: number): void => {
    if (seen[p] || !isEven(layer.grey, p)) return;
    const flat = flatFrom(layer, p, seen);
    if (flat) flats.push(flat);
  };
  for (let x = 0; x < width; x += 2) {
    start(x);
    start((height - 1) * width + x);
  }
  for (let y = 0; y < height; y += 2) {
    start(y * width);
    start(y * width + width - 1);
  }
  return flats;
}

/** Grows one region; every pixel it visits is marked. @returns null for small ones */
export function flatFrom({ grey, colours }: Layer, seed: number, seen: Uint8Array): Flat | null {
  const { width, height } = grey;
  const planes = (colours.length ? colours : [grey]).map(({ values }) => values);
  const origin = planes.map((plane) => middleAround(plane, seed, width, height));
  const pixels = [seed];
  seen[seed] = 1;
  for (let k = 0; k < pixels.length; k++) {
    const p = pixels[k]!;
    const x = p % width;
    const visit = (q: number): void => {
      if (seen[q]) return;
      for (let c = 0; c < planes.length; c++) {
        const v = planes[c]![q]!;
        if (Math.abs(v - planes[c]![p]!) > NEXT || Math.abs(v - origin[c]!) > WHOLE) return;
      }
      seen[q] = 1;
      pixels.push(q);
    };
    if (x > 0) visit(p - 1);
    if (x < width - 1) visit(p + 1);
    if (p >= width) visit(p - width);
    if (p + width < width * height) visit(p + width);
  }
  if (pixels.length < SMALLEST * width * height) return null;
  return flatWith(Int32Array.from(pixels).sort(), { grey, colours });
}

/** A region of these pixels, measured. @param pixels in reading order */
export function flatWith(pixels: Int32Array, { grey, colours }: Layer): Flat {
  const planes = (colours.length ? colours : [grey]).map(({ values }) => values);
  return {
    pixels,
    colour: planes.map((plane) => pixels.reduce((s, p) => s + plane[p]!, 0) / pixels.length),
    traits: traitsOf(pixels, grey.values, planes, grey.width, grey.height),
  };
}

/** Whether tone hardly changes around a pixel: a region begun on a slope would take only some of the ground beside it. */
function isEven({ values, width, height }: Layer['grey'], p: number): boolean {
  const [x, y] = [p % width, (p / width) | 0];
  let [least, most] = [255, 0];
  for (let j = Math.max(0, y - SEED); j <= Math.min(height - 1, y + SEED); j++)
    for (let i = Math.max(0, x - SEED); i <= Math.min(width - 1, x + SEED); i++) {
      least = Math.min(least, values[j * width + i]!);
      most = Math.max(most, values[j * width + i]!);
    }
  return most - least <= SPREAD;
}

function middleAround(plane: Float32Array, p: number, width: number, height: number): number {
  const [x, y] = [p % width, (p / width) | 0];
  const near: number[] = [];
  for (let j = Math.max(0, y - 2); j <= Math.min(height - 1, y + 2); j++)
    for (let i = Math.max(0, x - 2); i <= Math.min(width - 1, x + 2); i++)
      near.push(plane[j * width + i]!);
  near.sort((a, b) => a - b);
  return near[near.length >> 1]!;
}

/** Places beyond an edge that are read: the fringe, and what lies behind it; px. */
const FRINGE = [1, 2, 3] as const;
const BEHIND = [6, 8] as const;
/** Places at which a tone that goes on beyond a line is met again; a torn edge with its shadow is narrower. */
const RESUMED = [16, 24] as const;

function traitsOf(
  pixels: Int32Array,
  grey: Float32Array,
  planes: readonly Float32Array[],
  width: number,
  height: number,
): FlatTraits {
  const inside = new Uint8Array(width * height);
  for (const p of pixels) inside[p] = 1;
  const middle = pixels.reduce((s, p) => s + grey[p]!, 0) / pixels.length;
  const { border, length, fringed, cut, resumed, step } = edgeOf(
    pixels,
    inside,
    middle,
    grey,
    width,
  );
  const ends = [0, width - 1, (height - 1) * width, height * width - 1];
  const bounds = pixels.reduce(
    ([l, r, t, b], p) => [
      Math.min(l!, p % width),
      Math.max(r!, p % width),
      Math.min(t!, (p / width) | 0),
      Math.max(b!, (p / width) | 0),
    ],
    [width, 0, height, 0],
  ) as [number, number, number, number];
  return {
    share: pixels.length / (width * height),
    even: evenShare(pixels, planes),
    border: border / Math.min(width, height),
    corners: ends.filter((p) => inside[p]).length,
    fringe: length ? fringed / length : 0,
    cut: length ? cut / length : 0,
    step,
    resumes: length ? resumed / length : 0,
    breadth: length ? (2 * pixels.length) / length / Math.min(width, height) : 1,
    ragged: length / (bounds[1] - bounds[0] + bounds[3] - bounds[2] + 2),
    grey: middle,
  };
}

/** Share of a region's pixels within two levels of its own middle in every plane. */
function evenShare(pixels: Int32Array, planes: readonly Float32Array[]): number {
  const off = new Uint8Array(pixels.length);
  for (const plane of planes) {
    const counts = new Int32Array(256);
    for (const p of pixels) counts[Math.round(plane[p]!)]!++;
    let [sum, middle] = [counts[0]!, 0];
    while (sum * 2 < pixels.length) sum += counts[++middle]!;
    for (let k = 0; k < pixels.length; k++)
      if (Math.abs(plane[pixels[k]!]! - middle) > 2) off[k] = 1;
  }
  let even = pixels.length;
  for (const is of off) even -= is;
  return even / pixels.length;
}

/** What lies at the edge of a region and beyond it: px of the picture's border, of its own edge, and of that by what is seen there. */
interface Edge {
  readonly border: number;
  readonly length: number;
  readonly fringed: number;
  readonly cut: number;
  readonly resumed: number;
  /** The middle step over the edge, grey levels. */
  readonly step: number;
}

function edgeOf(
  pixels: Int32Array,
  inside: Uint8Array,
  middle: number,
  grey: Float32Array,
  width: number,
): Edge {
  const height = grey.length / width;
  let [border, fringed, cut, resumed] = [0, 0, 0, 0];
  const steps: number[] = [];
  for (const p of pixels) {
    const x = p % width;
    const y = (p / width) | 0;
    if (x === 0 || y === 0 || x === width - 1 || y === height - 1) border++;
    for (let k = 0; k < SIDES.length; k++) {
      const [dx, dy] = SIDES[k]!;
      const [qx, qy] = [x + dx, y + dy];
      if (qx < 0 || qy < 0 || qx >= width || qy >= height || inside[qy * width + qx]) continue;
      const at = (d: number): number => {
        const sx = Math.max(0, Math.min(width - 1, x + d * dx));
        const sy = Math.max(0, Math.min(height - 1, y + d * dy));
        return grey[sy * width + sx]!;
      };
      const fringe = Math.max(at(FRINGE[0]), at(FRINGE[1]), at(FRINGE[2]));
      const behind = (at(BEHIND[0]) + at(BEHIND[1])) / 2;
      if (fringe > 200 && fringe > behind + 20 && fringe > middle + 20) fringed++;
      if (Math.abs(at(RESUMED[0]) - middle) < 10 && Math.abs(at(RESUMED[1]) - middle) < 10)
        resumed++;
      const step = Math.abs(at(2) - middle);
      if (step > 18) cut++;
      steps.push(step);
    }
  }
  const sorted = Float64Array.from(steps).sort();
  const step = sorted[sorted.length >> 1] ?? 0;
  return { border, length: steps.length, fringed, cut, resumed, step };
}
