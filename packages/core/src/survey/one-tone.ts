import type { Layer, Reading } from '../raster/layers.js';
import { readingIn } from '../raster/layers.js';
import type { Plane } from '../raster/plane.js';
import { medianOf } from '../raster/median.js';

/** Pixels that tell the colours of a print: more say the same. */
const ASKED = 12_000;
/** Rounds in which a curve settles, and the deviation that is none, levels. */
const ROUNDS = 6;
const NEAR = 0.5;
/** Colours of a print of one tone stray from it by no more, in the middle, levels. */
const ONE_TONE = 3;
/** What strays further is no less part of the print, levels. */
const MOST = 20;
/** Levels of grey that a level of straying speaks as loud as: prints of one tone hold to it closely. */
const LOUD = 3;

/**
 * Tells what is foreign to a print of one tone, grey or toned, by its colour: how far a pixel strays from the print's
 * own colour at its grey, in levels of grey that say as much, 0..60. Null for pictures in colour, which have no such
 * tone, and for pictures of one channel.
 */
export function foreignAt({ grey, colourOf }: Reading): ((pixel: number) => number) | null {
  const tone = colourOf && toneOf(grey, colourOf);
  if (!tone) return null;
  return (p) => foreign(tone, grey.values[p]!, colourOf(p, 0), colourOf(p, 1), colourOf(p, 2));
}

/** A layer of a print of one tone with what is foreign to it as a fourth plane; null for other layers. */
export function withForeign(layer: Layer): Layer | null {
  const { grey, colours } = layer;
  const { colourOf } = readingIn(layer);
  const tone = colourOf && toneOf(grey, colourOf);
  if (!tone) return null;
  const [r, g, b] = colours.map(({ values }) => values) as Colours;
  const values = new Float32Array(r.length);
  for (let p = 0; p < values.length; p++)
    values[p] = foreign(tone, grey.values[p]!, r[p]!, g[p]!, b[p]!);
  return { ...layer, colours: [...colours, { ...grey, values }] };
}

type Colours = [Float32Array, Float32Array, Float32Array];

/** By how much red and blue differ from green, and by how much pixels usually stray from that, levels. */
interface Tone {
  readonly red: Curve;
  readonly blue: Curve;
  readonly usual: number;
}

function toneOf(grey: Plane, colourOf: NonNullable<Reading['colourOf']>): Tone | null {
  const pixels = grey.values.length;
  const every = Math.max(1, Math.floor(pixels / ASKED));
  const asked = Array.from({ length: Math.ceil(pixels / every) }, (_, k) => k * every);
  const [r, g, b] = [0, 1, 2].map((c) => asked.map((p) => colourOf(p, c))) as [
    number[],
    number[],
    number[],
  ];
  const greys = asked.map((p) => grey.values[p]! / 255);
  const red = curveOf(
    greys,
    r.map((v, k) => v - g[k]!),
  );
  const blue = curveOf(
    greys,
    b.map((v, k) => v - g[k]!),
  );
  const usual = medianOf(
    asked.map((p, k) => strayOf(red, blue, grey.values[p]!, r[k]!, g[k]!, b[k]!)),
  );
  return usual > ONE_TONE ? null : { red, blue, usual };
}

function strayOf(red: Curve, blue: Curve, grey: number, r: number, g: number, b: number): number {
  const u = grey / 255;
  return Math.abs(r - g - on(red, u)) + Math.abs(b - g - on(blue, u));
}

function foreign(
  { red, blue, usual }: Tone,
  grey: number,
  r: number,
  g: number,
  b: number,
): number {
  return LOUD * Math.min(MOST, Math.max(0, strayOf(red, blue, grey, r, g, b) - 2 * usual));
}

/** A curve of degree two over grey, 0..1: the factors of 1, u and u^2. */
type Curve = readonly [number, number, number];

function on(curve: Curve, u: number): number {
  return curve[0] + u * (curve[1] + u * curve[2]);
}

/**
 * The curve of least absolute deviations from some values over grey, by weighted least squares repeated. What is laid on
 * a print, as bright as nothing else in it, bends a stiff curve little.
 */
function curveOf(greys: readonly number[], values: readonly number[]): Curve {
  let curve: Curve = [medianOf(values), 0, 0];
  for (let round = 0; round < ROUNDS; round++) {
    const m = [0, 0, 0, 0, 0];
    const t = [0, 0, 0];
    for (let i = 0; i < greys.length; i++) {
      const [u, v] = [greys[i]!, values[i]!];
      let power = 1 / Math.max(NEAR, Math.abs(v - on(curve, u)));
      for (let k = 0; k < 5; k++, power *= u) {
        m[k]! += power;
        if (k < 3) t[k]! += power * v;
      }
    }
    curve = solved(m, t, greys.length) ?? curve;
  }
  return curve;
}

/** Three equations by Cramer's rule; null where a print has hardly more than one grey. */
function solved(m: readonly number[], t: readonly number[], scale: number): Curve | null {
  const [a, b, c, d, e] = m as [number, number, number, number, number];
  const [x, y, z] = t as [number, number, number];
  const det = a * (c * e - d * d) - b * (b * e - c * d) + c * (b * d - c * c);
  if (!(det > 1e-9 * scale)) return null;
  return [
    (x * (c * e - d * d) - b * (y * e - d * z) + c * (y * d - c * z)) / det,
    (a * (y * e - d * z) - x * (b * e - c * d) + c * (b * z - c * y)) / det,
    (a * (c * z - d * y) - b * (b * z - c * y) + x * (b * d - c * c)) / det,
  ];
}
