import { middleOver } from '../running.js';
import type { Plane } from '../../raster/plane.js';
import { sampleAt } from '../../raster/plane.js';
import type { FamilyLine } from './lines.js';
import { SPACING } from './lines.js';

/** One wire of a mesh as it really runs; px. */
export interface MeshWire {
  /** 2 = one that the mesh hangs on. */
  readonly family: 0 | 1 | 2;
  readonly index: number;
  readonly xs: Float32Array;
  readonly ys: Float32Array;
  readonly widths: Float32Array;
  /** Unit vector across it. */
  readonly nx: Float32Array;
  readonly ny: Float32Array;
  /** Whether the wire is to be seen at a point, or something stands before it. */
  readonly shown: Uint8Array;
}

/** What the wires of a mesh have in common. */
export interface WireLook {
  /** At half height, px. */
  readonly width: number;
  /** How far out from there the edge fades, px. */
  readonly soft: number;
  /** Middle grey on the wires, and how far it strays. */
  readonly tone: number;
  readonly stray: number;
}

const STEP = 0.5;
/** Cost of a step sideways from point to point, in grey levels of evidence. */
const STIFF = 5;
/** Most evidence a point can give, grey levels. */
const ENOUGH = 30;

/** How far along a wire its usual place is told from, and how far from it one flank alone may have been followed, px. */
const USUAL = 120;
const MOST_ASTRAY = 4;

/** Follows a wire about its place in the family: the way sideways along which most stands out, never turning fast. */
export function trackedOffsets(
  plane: Plane,
  line: FamilyLine,
  look: WireLook,
  reach: number,
): Float32Array {
  const n = line.x.length;
  const places = 2 * Math.round(reach / STEP) + 1;
  const middle = (places - 1) / 2;
  const half = look.width / 2;
  const far = Math.ceil((reach + half + 4) / STEP);
  const profile = new Float32Array(2 * far + 1);
  const sums = new Float32Array(2 * far + 2);
  const cost = new Float32Array(n * places);
  for (let i = 0; i < n; i++) {
    for (let k = -far; k <= far; k++)
      profile[k + far] = sampleAt(
        plane,
        line.x[i]! + k * STEP * line.nx[i]!,
        line.y[i]! + k * STEP * line.ny[i]!,
      );
    for (let k = 0; k < profile.length; k++) sums[k + 1] = sums[k]! + profile[k]!;
    const mean = (from: number, to: number): number => {
      const a = Math.max(0, Math.round(from / STEP) + far);
      const b = Math.min(profile.length, Math.round(to / STEP) + far + 1);
      return (sums[b]! - sums[a]!) / (b - a);
    };
    for (let o = 0; o < places; o++) {
      const at = (o - middle) * STEP;
      const core = mean(at - half + 1, at + half - 1);
      const left = mean(at - half - 3, at - half - 1);
      const right = mean(at + half + 1, at + half + 3);
      const nearer = Math.max(
        Math.min(core - left, core - right),
        Math.min(left - core, right - core),
      );
      const edge = Math.max(Math.abs(core - left), Math.abs(core - right));
      const stray = (core - look.tone) / look.stray;
      const like = Math.exp(-0.5 * stray * stray);
      const evidence = Math.min(ENOUGH, Math.max(0, nearer)) + 0.25 * Math.min(ENOUGH, edge);
      cost[i * places + o] = -evidence * (0.25 + 0.75 * like) + 0.02 * at * at;
    }
  }
  return cheapestWay(cost, n, places).map((o) => (o - middle) * STEP);
}

/** Column by row of least total cost, moving at most two places a row. */
function cheapestWay(cost: Float32Array, n: number, places: number): Float32Array {
  const total = cost.slice(0, places);
  const from = new Int8Array(n * places);
  const next = new Float32Array(places);
  for (let i = 1; i < n; i++) {
    for (let o = 0; o < places; o++) {
      let best = Infinity;
      let move = 0;
      for (let d = -2; d <= 2; d++) {
        const q = o + d;
        if (q < 0 || q >= places) continue;
        const c = total[q]! + STIFF * STEP * Math.abs(d);
        if (c < best || (c === best && Math.abs(d) < Math.abs(move))) {
          best = c;
          move = d;
        }
      }
      next[o] = best + cost[i * places + o]!;
      from[i * places + o] = move;
    }
    total.set(next);
  }
  const way = new Float32Array(n);
  let o = total.indexOf(Math.min(...total));
  for (let i = n - 1; i >= 0; i--) {
    way[i] = o;
    o += from[i * places + o]!;
  }
  return way;
}

/** A wire where it really runs, with its width and where it is hidden. */
export function wireAlong(
  plane: Plane,
  line: FamilyLine,
  offsets: Float32Array,
  look: WireLook,
  family: MeshWire['family'],
): MeshWire {
  const n = line.x.length;
  const followed = meanOver(offsets, 3);
  const usual = middleOver(offsets, Math.round(USUAL / SPACING));
  const astray = followed.map((o, i) =>
    Math.max(-MOST_ASTRAY, Math.min(MOST_ASTRAY, usual[i]! - o)),
  );
  const smooth = followed.map((o, i) => o + astray[i]! / 2);
  const xs = line.x.map((x, i) => x + smooth[i]! * line.nx[i]!);
  const ys = line.y.map((y, i) => y + smooth[i]! * line.ny[i]!);
  const widths = new Float32Array(n);
  const odd = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const across = (o: number): number =>
      sampleAt(plane, xs[i]! + o * line.nx[i]!, ys[i]! + o * line.ny[i]!);
    const core = (across(-1) + across(0) + across(1)) / 3;
    widths[i] = flank(across, core, look.width, 1) + flank(across, core, look.width, -1);
    odd[i] = Math.abs(core - look.tone) / look.stray;
  }
  const reach = Math.round(24 / SPACING);
  return {
    family,
    index: line.index,
    xs,
    ys,
    nx: line.nx,
    ny: line.ny,
    widths: asBroad(middleOver(widths, reach), astray),
    shown: shownAlong(odd),
  };
}

/** Widths that cover what was followed and the usual place beside it: there, the wire is as broad as it usually is. */
function asBroad(widths: Float32Array, astray: Float32Array): Float32Array {
  const usual = middleOver(widths, Math.round(USUAL / SPACING));
  return widths.map((w, i) => {
    const aside = Math.abs(astray[i]!);
    return aside < 1 ? w + aside : Math.max(w, usual[i]!) + aside;
  });
}

/** Where a wire's half height is reached on one side, px; half the usual width where no step is clear. */
function flank(across: (o: number) => number, core: number, width: number, way: 1 | -1): number {
  const side = (across(way * (width / 2 + 2)) + across(way * (width / 2 + 3))) / 2;
  if (Math.abs(core - side) < 12) return width / 2;
  const half = (core + side) / 2;
  const sign = Math.sign(core - side);
  for (let o = 0.5; o < width / 2 + 3; o += 0.5)
    if (sign * (across(way * o) - half) <= 0)
      return Math.max(0.3 * width, Math.min(0.8 * width, o - 0.25));
  return width / 2;
}

/** A wire is hidden where its tone is another one for some length. */
const ODD = 5;
const HIDDEN = Math.round(15 / SPACING);

function shownAlong(odd: Float32Array): Uint8Array {
  const middle = middleOver(odd, HIDDEN >> 1);
  const shown = new Uint8Array(odd.length).fill(1);
  for (let from = 0; from < middle.length;) {
    let to = from;
    while (to < middle.length && middle[to]! > ODD) to++;
    if (to - from >= HIDDEN) shown.fill(0, from, to);
    from = to + 1;
  }
  return shown;
}

function meanOver(values: Float32Array, reach: number): Float32Array {
  return values.map((_, i) => {
    let [sum, count] = [0, 0];
    for (let k = Math.max(0, i - reach); k <= Math.min(values.length - 1, i + reach); k++, count++)
      sum += values[k]!;
    return sum / count;
  });
}
