import type { Rect } from '../raster/rect.js';
import type { PointMap } from '../raster/resample.js';
import { inverseOf, through } from '../shape/homography.js';
import type { Rotation, Vector } from './rotation.js';
import { cross, times, transposed, turnedBy, unit } from './rotation.js';
import type { Point } from '../shape/site.js';
import { solveSmall } from '../solve/small.js';
import type { Flat, Size, Turned } from './cameras.js';
import { middleOf } from './cameras.js';

export type Projection = 'plane' | 'cylinder';

/** What the frames are laid on. */
export interface Surface {
  readonly projection: Projection;
  readonly width: number;
  readonly height: number;
  /** For a frame: px of the canvas to px of the frame; null for frames that do not belong. */
  readonly toFrame: readonly (PointMap | null)[];
  /** Where each frame lies on the canvas. */
  readonly boxes: readonly (Rect | null)[];
}

/** Angle across, in degrees, from which on a plane would pull the ends apart. */
const WIDEST_PLANE = 72;
/** Points along a frame's side. */
const ALONG = 24;

/** Thrown when frames cannot be laid on one surface. */
export class CannotLay extends Error {}

/** @throws CannotLay when a plane cannot hold the frames */
export function surfaceOf(
  geometry: Turned | Flat,
  sizes: readonly Size[],
  wanted: Projection | 'auto',
): Surface {
  if (geometry.kind === 'flat') {
    if (wanted === 'cylinder')
      throw new CannotLay(
        'the frames were not taken from one point, so no cylinder fits them; use a plane',
      );
    return flatSurface(geometry, sizes);
  }
  const level = levelled(geometry);
  const projection =
    wanted === 'auto' ? (angleAcross(level, sizes) > WIDEST_PLANE ? 'cylinder' : 'plane') : wanted;
  return projection === 'plane' ? planeSurface(level, sizes) : cylinderSurface(level, sizes);
}

/** The world turned so that the cameras' sides lie level and their mean looks forward (Brown, Lowe 2007, section 5). */
function levelled(geometry: Turned): Turned {
  const turns = geometry.turns.filter((t): t is Rotation => t !== null);
  const axis = (t: Rotation, k: number): Vector => [t[k]!, t[3 + k]!, t[6 + k]!];
  // Down is what stands square to all sides; frames that hardly turn say little of it, so their own down counts a little.
  const a = [0, 1, 2].map(() => [0, 0, 0]);
  const b = [0, 0, 0];
  for (const t of turns) {
    const [side, down] = [axis(t, 0), axis(t, 1)];
    for (let i = 0; i < 3; i++) {
      b[i]! += 0.02 * down[i]!;
      for (let j = 0; j < 3; j++) a[i]![j]! += side[i]! * side[j]! + (i === j ? 0.02 : 0);
    }
  }
  const down = unit(solveSmall(a, b) as [number, number, number]);
  const sum = turns.reduce<Vector>((s, t) => [s[0] + t[2]!, s[1] + t[5]!, s[2] + t[8]!], [0, 0, 0]);
  const right = unit(cross(down, sum));
  const ahead = cross(right, down);
  const level = [...right, ...down, ...ahead];
  return { ...geometry, turns: geometry.turns.map((t) => t && times(level, t)) };
}

function borderOf({ width, height }: Size): Point[] {
  const out: Point[] = [];
  for (let k = 0; k < ALONG; k++) {
    const [x, y] = [((width - 1) * k) / ALONG, ((height - 1) * k) / ALONG];
    out.push([x, 0], [width - 1, y], [width - 1 - x, height - 1], [0, height - 1 - y]);
  }
  return out;
}

/** The direction a frame's pixel looks in. */
function rayOf({ focal, bow, turns }: Turned, frame: number, size: Size, [x, y]: Point): Vector {
  const [mx, my] = middleOf(size);
  const [u, v] = [(x - mx) / focal, (y - my) / focal];
  const s = 1 + bow * (u * u + v * v);
  return turnedBy(turns[frame]!, [u * s, v * s, 1]);
}

function angleAcross(geometry: Turned, sizes: readonly Size[]): number {
  const angles = sizes.flatMap((size, k) =>
    geometry.turns[k]
      ? borderOf(size).map((p) => {
          const [x, , z] = rayOf(geometry, k, size, p);
          return Math.atan2(x, z);
        })
      : [],
  );
  return ((Math.max(...angles) - Math.min(...angles)) * 180) / Math.PI;
}

function planeSurface(geometry: Turned, sizes: readonly Size[]): Surface {
  const { focal } = geometry;
  const places = sizes.map((size, k) =>
    geometry.turns[k]
      ? borderOf(size).map((p): Point => {
          const [x, y, z] = rayOf(geometry, k, size, p);
          if (z < 0.25 * Math.hypot(x, y))
            throw new CannotLay('the frames reach too far round for a plane; use a cylinder');
          return [(focal * x) / z, (focal * y) / z];
        })
      : null,
  );
  const { left, top, ...frame } = framed(places);
  const toFrame = sizes.map((size, k): PointMap | null => {
    const turn = geometry.turns[k];
    if (!turn) return null;
    const look = lookInto(geometry, turn, size);
    return (x, y, to) => look((x + left) / focal, (y + top) / focal, 1, to);
  });
  return { projection: 'plane', toFrame, ...frame };
}

function cylinderSurface(geometry: Turned, sizes: readonly Size[]): Surface {
  const { focal } = geometry;
  const places = sizes.map((size, k) =>
    geometry.turns[k]
      ? borderOf(size).map((p): Point => {
          const [x, y, z] = rayOf(geometry, k, size, p);
          return [focal * Math.atan2(x, z), (focal * y) / Math.hypot(x, z)];
        })
      : null,
  );
  const { left, top, ...frame } = framed(places);
  if (frame.width > 2 * Math.PI * focal) throw new CannotLay('the frames go all the way round');
  // Sine and cosine of every column, so that a pixel costs no angle.
  const sines = Float64Array.from({ length: frame.width }, (_, x) => Math.sin((x + left) / focal));
  const cosines = Float64Array.from({ length: frame.width }, (_, x) =>
    Math.cos((x + left) / focal),
  );
  const toFrame = sizes.map((size, k): PointMap | null => {
    const turn = geometry.turns[k];
    if (!turn) return null;
    const look = lookInto(geometry, turn, size);
    return (x, y, to) => {
      const whole = Number.isInteger(x) && x >= 0 && x < frame.width;
      const s = whole ? sines[x]! : Math.sin((x + left) / focal);
      const c = whole ? cosines[x]! : Math.cos((x + left) / focal);
      look(s, (y + top) / focal, c, to);
    };
  });
  return { projection: 'cylinder', toFrame, ...frame };
}

/** A direction of the world to px of a frame; far outside when it lies behind the camera. */
function lookInto({ focal, bow }: Turned, turn: Rotation, size: Size) {
  const m = transposed(turn);
  const [mx, my] = middleOf(size);
  const [a, b, c, d, e, f, g, h, i] = m as number[] & { length: 9 };
  return (x: number, y: number, z: number, to: Float64Array): void => {
    const w = g! * x + h! * y + i! * z;
    if (w <= 1e-3) {
      to[0] = -1e6;
      to[1] = -1e6;
      return;
    }
    const u = (a! * x + b! * y + c! * z) / w;
    const v = (d! * x + e! * y + f! * z) / w;
    let s = 1;
    // r (1 + bow r^2) = r' by Newton's method.
    if (bow !== 0) {
      const want = u * u + v * v;
      for (let k = 0; k < 4; k++) {
        const q = want * s * s;
        s -= (s * (1 + bow * q) - 1) / (1 + 3 * bow * q);
      }
    }
    to[0] = mx + focal * u * s;
    to[1] = my + focal * v * s;
  };
}

function flatSurface({ maps }: Flat, sizes: readonly Size[]): Surface {
  const places = sizes.map((size, k) => {
    const map = maps[k];
    if (!map) return null;
    return borderOf(size).map((p): Point => {
      if (map[6]! * p[0] + map[7]! * p[1] + 1 < 0.2)
        throw new CannotLay('the frames lie too obliquely to each other to be joined on a plane');
      return through(map, p);
    });
  });
  const { left, top, ...frame } = framed(places);
  const toFrame = maps.map((map): PointMap | null => {
    if (!map) return null;
    const [a, b, c, d, e, f, g, h, i] = inverseOf(map) as number[] & { length: 9 };
    return (x, y, to) => {
      const [u, v] = [x + left, y + top];
      const w = g! * u + h! * v + i!;
      to[0] = (a! * u + b! * v + c!) / w;
      to[1] = (d! * u + e! * v + f!) / w;
    };
  });
  return { projection: 'plane', toFrame, ...frame };
}

/** The canvas that holds all places, and each frame's part of it. */
function framed(places: readonly (readonly Point[] | null)[]) {
  const all = places.flatMap((p) => p ?? []);
  const left = Math.floor(Math.min(...all.map((p) => p[0])));
  const top = Math.floor(Math.min(...all.map((p) => p[1])));
  const width = Math.ceil(Math.max(...all.map((p) => p[0]))) - left + 1;
  const height = Math.ceil(Math.max(...all.map((p) => p[1]))) - top + 1;
  const boxes = places.map((list): Rect | null => {
    if (!list) return null;
    const x = Math.floor(Math.min(...list.map((p) => p[0]))) - left;
    const y = Math.floor(Math.min(...list.map((p) => p[1]))) - top;
    const right = Math.ceil(Math.max(...list.map((p) => p[0]))) - left;
    const bottom = Math.ceil(Math.max(...list.map((p) => p[1]))) - top;
    return {
      x,
      y,
      width: Math.min(width, right + 1) - x,
      height: Math.min(height, bottom + 1) - y,
    };
  });
  return { left, top, width, height, boxes };
}
