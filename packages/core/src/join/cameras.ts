import { chained } from '../register/fit.js';
import type { Homography } from '../shape/homography.js';
import { inverseOf, through } from '../shape/homography.js';
import type { Rotation } from './rotation.js';
import { nearestRotation, rotationOf, times, transposed, UNTURNED } from './rotation.js';
import { levenberg } from '../solve/levenberg.js';
import type { Chain, Link } from './links.js';

/** Sides of a frame, px. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** Frames taken by a camera that turned about one point. */
export interface Turned {
  readonly kind: 'turned';
  /** Focal length, px. */
  readonly focal: number;
  /** Radial distortion: a point at r focal lengths from the middle belongs at r (1 + bow r^2). */
  readonly bow: number;
  /** Each frame's directions to the world's; null for frames that do not belong. */
  readonly turns: readonly (Rotation | null)[];
}

/** Frames of something flat, or taken from different places: each laid over the root by a projective map. */
export interface Flat {
  readonly kind: 'flat';
  readonly maps: readonly (Homography | null)[];
}

export interface Solved<T> {
  readonly geometry: T;
  /** Root mean square of what pairs are off, px. */
  readonly rms: number;
}

/** px off from which on a pair counts linearly. */
const HUBER = 0.5;
/** Pairs of one link that take part, evenly chosen. */
const MOST_PAIRS = 240;

/** The camera that turned, or the flat thing, whichever explains the links; the first where both do. */
export function camerasOf(
  sizes: readonly Size[],
  links: readonly Link[],
  chain: Chain,
): Turned | Flat {
  const used = links
    .filter((l) => chain.frames.includes(l.one) && chain.frames.includes(l.other))
    .map((l) => ({ ...l, pairs: thinned(l) }));
  const flat = flatOf(sizes, used, chain);
  const turned = turnedOf(sizes, used, chain);
  return turned.rms < 1.4 * flat.rms + 0.05 ? turned.geometry : flat.geometry;
}

function thinned({ pairs }: Link): Link['pairs'] {
  const step = Math.max(1, pairs.length / MOST_PAIRS);
  return Array.from(
    { length: Math.floor(pairs.length / step) },
    (_, k) => pairs[Math.floor(k * step)]!,
  );
}

/** Maps along the chain, then all numbers together over all links. */
export function flatOf(sizes: readonly Size[], links: readonly Link[], chain: Chain): Solved<Flat> {
  const maps = sizes.map((): Homography | null => null);
  maps[chain.root] = UNTURNED;
  for (const { frame, from, link } of chain.steps)
    maps[frame] = chained(link.one === frame ? link.map : inverseOf(link.map), maps[from]!);
  const free = chain.steps.map((s) => s.frame);
  const start = free.flatMap((k) => maps[k]!.slice(0, 8));
  const long = Math.max(...sizes.map((s) => Math.max(s.width, s.height)));
  const steps = free.flatMap(() => [1e-6, 1e-6, 1e-3, 1e-6, 1e-6, 1e-3, 1e-6 / long, 1e-6 / long]);
  const read = (values: readonly number[]): (Homography | null)[] => {
    const out = [...maps];
    free.forEach((k, i) => (out[k] = [...values.slice(8 * i, 8 * i + 8), 1]));
    return out;
  };
  const count = 2 * links.reduce((sum, l) => sum + l.pairs.length, 0);
  const rounds = links.length > chain.steps.length ? 15 : 2;
  const solved = levenberg(
    start,
    steps,
    count,
    (values, out) => {
      const all = read(values);
      let i = 0;
      for (const { one, other, pairs } of links) {
        const map = chained(all[one]!, inverseOf(all[other]!));
        for (const { from, to } of pairs) {
          const [x, y] = through(map, from);
          out[i++] = x - to[0];
          out[i++] = y - to[1];
        }
      }
    },
    HUBER,
    rounds,
  );
  return { geometry: { kind: 'flat', maps: read(solved.values) }, rms: solved.rms };
}

/**
 * One focal length and a turn a frame (Brown, Lowe, "Automatic Panoramic Image Stitching using Invariant Features", IJCV
 * 74(1), 2007): the focal length at which the links' maps are nearest to turns, then all numbers together; distortion of
 * the lens only where it explains clearly more.
 */
export function turnedOf(
  sizes: readonly Size[],
  links: readonly Link[],
  chain: Chain,
): Solved<Turned> {
  const focal = firstFocal(sizes, links);
  const turns = sizes.map((): Rotation | null => null);
  turns[chain.root] = UNTURNED;
  for (const { frame, from, link } of chain.steps) {
    const map = link.one === frame ? link.map : inverseOf(link.map);
    const { turn } = nearestRotation(between(map, sizes[frame]!, sizes[from]!, focal));
    turns[frame] = times(turns[from]!, turn);
  }
  const free = chain.steps.map((s) => s.frame);
  const solve = (bent: boolean, from: Turned): Solved<Turned> => {
    const read = (values: readonly number[]): Turned => {
      const all = [...from.turns];
      free.forEach((k, i) => {
        const [x, y, z] = values.slice(1 + 3 * i, 4 + 3 * i) as [number, number, number];
        all[k] = times(from.turns[k]!, rotationOf([x, y, z]));
      });
      return {
        kind: 'turned',
        focal: from.focal * Math.exp(values[0]!),
        bow: bent ? values.at(-1)! : 0,
        turns: all,
      };
    };
    const start = [0, ...free.flatMap(() => [0, 0, 0]), ...(bent ? [0] : [])];
    const steps = [1e-6, ...free.flatMap(() => [1e-7, 1e-7, 1e-7]), ...(bent ? [1e-6] : [])];
    const count = 2 * links.reduce((sum, l) => sum + l.pairs.length, 0);
    const solved = levenberg(
      start,
      steps,
      count,
      (v, out) => offsOf(read(v), sizes, links, out),
      HUBER,
    );
    return { geometry: read(solved.values), rms: solved.rms };
  };
  const straight = solve(false, { kind: 'turned', focal, bow: 0, turns });
  if (straight.rms < 0.12) return straight;
  const bent = solve(true, straight.geometry);
  return bent.rms < 0.85 * straight.rms ? bent : straight;
}

/** A map between frames as one between directions. */
function between(map: Homography, from: Size, to: Size, focal: number): number[] {
  const up = [focal, 0, (from.width - 1) / 2, 0, focal, (from.height - 1) / 2, 0, 0, 1];
  const down = [
    1 / focal,
    0,
    (1 - to.width) / 2 / focal,
    0,
    1 / focal,
    (1 - to.height) / 2 / focal,
    0,
    0,
    1,
  ];
  return times(down, times(map, up));
}

function firstFocal(sizes: readonly Size[], links: readonly Link[]): number {
  const long = Math.max(...sizes.map((s) => Math.max(s.width, s.height)));
  let best = { off: Infinity, focal: long };
  for (let k = 0; k <= 60; k++) {
    const focal = long * 0.35 * Math.exp((k / 60) * Math.log(20));
    let off = 0;
    for (const { one, other, map, pairs } of links)
      off +=
        pairs.length * nearestRotation(between(map, sizes[one]!, sizes[other]!, focal)).off * focal;
    if (off < best.off) best = { off, focal };
  }
  return best.focal;
}

function offsOf(
  { focal, bow, turns }: Turned,
  sizes: readonly Size[],
  links: readonly Link[],
  out: Float64Array,
): void {
  let i = 0;
  for (const { one, other, pairs } of links) {
    const m = times(transposed(turns[other]!), turns[one]!);
    const [a, b] = [middleOf(sizes[one]!), middleOf(sizes[other]!)];
    for (const { from, to } of pairs) {
      const x = (from[0] - a[0]) / focal;
      const y = (from[1] - a[1]) / focal;
      const s = 1 + bow * (x * x + y * y);
      const z = m[6]! * x * s + m[7]! * y * s + m[8]!;
      const u = (m[0]! * x * s + m[1]! * y * s + m[2]!) / z;
      const v = (m[3]! * x * s + m[4]! * y * s + m[5]!) / z;
      const q = (to[0] - b[0]) / focal;
      const r = (to[1] - b[1]) / focal;
      const t = 1 + bow * (q * q + r * r);
      out[i++] = (u - q * t) * focal;
      out[i++] = (v - r * t) * focal;
    }
  }
}

export function middleOf({ width, height }: Size): [number, number] {
  return [(width - 1) / 2, (height - 1) / 2];
}

/** Every frame's projective map to another frame of its own (exact without distortion); null for those left out. */
export function mapsTo(
  target: number,
  geometry: Turned | Flat,
  sizes: readonly Size[],
): (Homography | null)[] {
  if (geometry.kind === 'flat') {
    const back = geometry.maps[target];
    return geometry.maps.map((m) => (m && back ? chained(m, inverseOf(back)) : null));
  }
  const { focal, turns } = geometry;
  const to = turns[target];
  return turns.map((turn, k) => {
    if (!turn || !to) return null;
    const m = times(transposed(to), turn);
    const [fx, fy] = middleOf(sizes[k]!);
    const [tx, ty] = middleOf(sizes[target]!);
    const down = [1 / focal, 0, -fx / focal, 0, 1 / focal, -fy / focal, 0, 0, 1];
    const h = times([focal, 0, tx, 0, focal, ty, 0, 0, 1], times(m, down));
    return h.map((v) => v / h[8]!);
  });
}
