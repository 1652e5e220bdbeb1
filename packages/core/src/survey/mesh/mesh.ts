import type { Plane } from '../../raster/plane.js';
import { sampleAt } from '../../raster/plane.js';
import type { Strand } from '../strands.js';
import { crestsOf } from './crests.js';
import type { Family } from './family.js';
import { familiesOf, worth } from './family.js';
import type { FamilyLine } from './lines.js';
import { linesOf } from './lines.js';
import { slopeAt } from './phase.js';
import { tensionLines } from './tension.js';
import type { MeshWire, WireLook } from './wires.js';
import { trackedOffsets, wireAlong } from './wires.js';

/** A fence before the subject: two families of wires. */
export interface Mesh {
  readonly families: readonly [Family, Family];
  readonly wires: readonly MeshWire[];
  /** What the wires of each family have in common. */
  readonly looks: readonly [WireLook, WireLook];
  readonly polarity: 1 | -1;
  /** 0..1 */
  readonly score: number;
}

/** What two families must show to be a mesh. */
const NEEDED = {
  borne: 0.4,
  between: 0.27,
  /** Least angle between them, radians, and largest ratio of their steps. */
  apart: 0.42,
  steps: 1.7,
  /** Lines a family has at least. */
  lines: 4,
} as const;

/**
 * The mesh before a picture, if there is one.
 * @param plane grey 0..255 of the picture the strands' px are measured in
 * @param strands of several levels
 * @param leastScore what it must reach, 0..1
 */
export function meshOf(plane: Plane, strands: readonly Strand[], leastScore = 0.5): Mesh | null {
  const families = familiesOf(crestsOf(strands), plane);
  const pair = pairOf(families, plane);
  if (!pair) return null;
  const score = Math.min(1, Math.min(worth(pair[0]), worth(pair[1])));
  if (score < leastScore) return null;
  const reach = Math.min(12, 0.16 * Math.min(pair[0].step, pair[1].step));
  const followed = pair.map(({ phase }, f) =>
    followedFamily(plane, linesOf(phase, plane), reach, f as 0 | 1),
  );
  const woven = followed.flatMap((f) => f.wires);
  const hung = tensionLines(plane, woven, followed[0]!.look);
  const wires = [...woven, ...(hung.length ? followedFamily(plane, hung, reach, 2).wires : [])];
  const looks = followed.map((f) => f.look) as [WireLook, WireLook];
  return {
    families: pair,
    wires,
    looks,
    score,
    polarity: looks[0].tone + looks[1].tone > 254 ? 1 : -1,
  };
}

/** The wires of one family: followed once, then again with what is known of their tone and width by then. */
function followedFamily(
  plane: Plane,
  lines: readonly FamilyLine[],
  reach: number,
  family: MeshWire['family'],
): { wires: MeshWire[]; look: WireLook } {
  let look: WireLook = { ...usualWidth(plane, lines), ...toneAlong(plane, lines) };
  let wires: MeshWire[] = [];
  for (let round = 0; round < 2; round++) {
    wires = lines.map((line) =>
      wireAlong(plane, line, trackedOffsets(plane, line, look, reach), look, family),
    );
    const run = wires.map(({ xs, ys, nx, ny }) => ({ x: xs, y: ys, nx, ny }));
    look = { ...usualWidth(plane, run), ...toneAlong(plane, run) };
  }
  return { wires, look };
}

function pairOf(families: readonly Family[], { width, height }: Plane): [Family, Family] | null {
  const good = families.filter(
    (f) =>
      f.borne >= NEEDED.borne &&
      f.between <= NEEDED.between &&
      Math.min(width, height) / f.step >= NEEDED.lines,
  );
  for (const first of good)
    for (const second of good) {
      const apart = Math.abs(first.angle - second.angle);
      if (Math.min(apart, Math.PI - apart) < NEEDED.apart) continue;
      const ratio = first.step / second.step;
      if (ratio > NEEDED.steps || ratio < 1 / NEEDED.steps) continue;
      return [first, second];
    }
  return null;
}

interface Along {
  readonly x: Float32Array;
  readonly y: Float32Array;
}

function toneAlong(plane: Plane, lines: readonly Along[]): { tone: number; stray: number } {
  const values: number[] = [];
  for (const { x, y } of lines)
    for (let i = 0; i < x.length; i += 2) values.push(sampleAt(plane, x[i]!, y[i]!));
  values.sort((a, b) => a - b);
  const tone = values[values.length >> 1]!;
  const off = values.map((v) => Math.abs(v - tone)).sort((a, b) => a - b);
  return { tone, stray: Math.max(8, 1.4826 * off[off.length >> 1]!) };
}

const THINNEST = 3;
/** Shares of the hump of steps at whose outer flank a wire's half height and the foot of its soft edge lie. */
const HALF_HEIGHT = 0.85;
const FOOT = 0.15;
/** Half the size of the window a profile is averaged in, px. */
const WINDOW = 12;

/**
 * Width of most wires and how far their edges reach out: where the steps across their lines are steepest, on either side, taken over the whole mesh so
 * that what stands behind averages out.
 */
function usualWidth(
  plane: Plane,
  lines: readonly (Along & { readonly nx: Float32Array; readonly ny: Float32Array })[],
): Pick<WireLook, 'width' | 'soft'> {
  const steps = new Float64Array(2 * WINDOW + 1);
  for (const { x, y, nx, ny } of lines)
    for (let i = 0; i < x.length; i += 2) {
      const at = (o: number): number => sampleAt(plane, x[i]! + o * nx[i]!, y[i]! + o * ny[i]!);
      for (let k = 0; k <= 2 * WINDOW; k++) {
        const o = (k + 1) / 2;
        steps[k]! +=
          Math.min(40, Math.abs(at(o - 0.5) - at(o + 0.5))) +
          Math.min(40, Math.abs(at(0.5 - o) - at(-o - 0.5)));
      }
    }
  const [base, top] = [Math.min(...steps), Math.max(...steps)];
  const last = (share: number): number =>
    (steps.findLastIndex((v) => v - base >= share * (top - base)) + 1) / 2;
  const half = Math.max(THINNEST / 2, last(HALF_HEIGHT));
  return { width: 2 * half, soft: Math.max(0, last(FOOT) - half) };
}

/** Directions in which the wires of a mesh run at a place, unit vectors. */
export function runsAt({ families }: Mesh, x: number, y: number): [number, number][] {
  return families.map(({ phase }) => {
    const [sx, sy] = slopeAt(phase, x, y);
    const d = Math.hypot(sx, sy);
    return [-sy / d, sx / d];
  });
}
