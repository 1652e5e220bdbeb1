import type { Point } from '../../shape/site.js';
import type { Edge } from '../edges.js';
import type { Ground } from './tensor.js';
import { tensorPlainly } from './tensor.js';

/** A place beside a site, px, and the unit vector from there into it. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly inwards: Point;
}

/** Half the window an edge is measured in, px. */
const HALF = 5;
const FOLLOWED = 48;
const FOLLOW = { step: 2, astray: 3 } as const;
/** Root mean square distance from its line up to which an edge is straight, px. */
const STRAY = 0.8;

/** Twin of edges in kernels/find, for one point. */
export function edgePlainly(ground: Ground, { x, y, inwards }: Place): Edge | null {
  const [xx, yy, xy] = tensorPlainly(ground, y * ground.width + x, HALF);
  const spread = Math.hypot(xx - yy, 2 * xy);
  if (spread < 0.6 * (xx + yy) || xx + yy < 1) return null;
  const across = Math.atan2(2 * xy, xx - yy) / 2;
  let along: Point = [-Math.sin(across), Math.cos(across)];
  const into = along[0] * inwards[0] + along[1] * inwards[1];
  if (into < 0) along = [-along[0], -along[1]];
  if (Math.abs(into) < 0.35) return null;
  const { way, at, straight, bend } = followed(ground, [x, y], along);
  const left = lumaBeside(ground, x, y, [way[1], -way[0]]);
  const right = lumaBeside(ground, x, y, [-way[1], way[0]]);
  return { from: [x, y], at, inward: way, strength: Math.abs(left - right), straight, bend };
}

function lumaBeside({ grey, width }: Ground, x: number, y: number, way: Point): number {
  let luma = 0;
  for (let d = 2; d <= HALF; d++)
    luma += grey[Math.round(y + d * way[1]) * width + Math.round(x + d * way[0])]! / (HALF - 1);
  return luma;
}

/** An edge's direction, from a line through where it is steepest along its way out of the site. */
function followed(
  ground: Ground,
  at: Point,
  inward: Point,
): { way: Point; at: Point; straight: boolean; bend: number } {
  let way = inward;
  let last = at;
  let first = 0;
  const line: Point[] = [];
  for (let d = FOLLOW.step; d <= FOLLOWED; d += FOLLOW.step) {
    const [nx, ny] = [way[1], -way[0]];
    const px = last[0] - FOLLOW.step * way[0];
    const py = last[1] - FOLLOW.step * way[1];
    let best = -1;
    let to: Point = [px, py];
    for (let k = -2 * FOLLOW.astray; k <= 2 * FOLLOW.astray; k++) {
      const [u, v] = [px + (k / 2) * nx, py + (k / 2) * ny];
      const s = steepness(ground, u, v, nx, ny) - 0.4 * Math.abs(k);
      if (s > best) {
        best = s;
        to = [u, v];
      }
    }
    if (d === FOLLOW.step) first = best;
    if (best < Math.max(5, 0.4 * first)) break;
    line.push(to);
    last = to;
    if (line.length > 4) way = directionOf(line, inward);
  }
  if (line.length <= 4) return { way: inward, at, straight: false, bend: 0 };
  way = directionOf(line, inward);
  // The line is fitted to all of the way back: the point is moved onto it.
  const mx = line.reduce((sum, [px]) => sum + px, 0) / line.length;
  const my = line.reduce((sum, [, py]) => sum + py, 0) / line.length;
  const off = (p: Point): number => (p[0] - mx) * way[1] - (p[1] - my) * way[0];
  const astray = Math.sqrt(line.reduce((sum, p) => sum + off(p) ** 2, 0) / line.length);
  const straight = line.length >= FOLLOWED / FOLLOW.step && astray < STRAY;
  const bend = bendOf(line.map((p) => [(p[0] - mx) * way[0] + (p[1] - my) * way[1], off(p)]));
  return { way, at: [at[0] - off(at) * way[1], at[1] + off(at) * way[0]], straight, bend };
}

/** A sharp step is seen from as far as one looks: what is seen from near tells where it is. -1 where it meets the site. */
function steepness(ground: Ground, x: number, y: number, nx: number, ny: number): number {
  const wide = stepAt(ground, x, y, 1.5 * nx, 1.5 * ny);
  return wide < 0 ? wide : (2 * wide + stepAt(ground, x, y, 0.5 * nx, 0.5 * ny)) / 3;
}

/** The step between both sides of a point, -1 where either is unknown. */
function stepAt(ground: Ground, x: number, y: number, nx: number, ny: number): number {
  const { grey } = ground;
  const a = placeOf(ground, Math.round(x + nx), Math.round(y + ny));
  const b = placeOf(ground, Math.round(x - nx), Math.round(y - ny));
  return a < 0 || b < 0 ? -1 : Math.abs(grey[a]! - grey[b]!);
}

/** A pixel's place in its window, -1 outside and in the site. */
function placeOf({ hole, width }: Ground, x: number, y: number): number {
  const p = y * width + x;
  return x < 0 || y < 0 || x >= width || p >= hole.length || hole[p] ? -1 : p;
}

/** Curvature of points told along and to the left of a line fitted to them: the parabola of least squares. */
function bendOf(points: readonly (readonly [number, number])[]): number {
  const spread = points.reduce((sum, [t]) => sum + t * t, 0) / points.length;
  let [up, under] = [0, 0];
  for (const [t, left] of points) {
    up += left * (t * t - spread);
    under += (t * t - spread) ** 2;
  }
  return under > 0 ? (2 * up) / under : 0;
}

/** Direction of the line of least squares through points, pointing the way of `like`. */
function directionOf(line: readonly Point[], like: Point): Point {
  const n = line.length;
  const mx = line.reduce((sum, [x]) => sum + x, 0) / n;
  const my = line.reduce((sum, [, y]) => sum + y, 0) / n;
  let [xx, yy, xy] = [0, 0, 0];
  for (const [x, y] of line) {
    xx += (x - mx) ** 2;
    yy += (y - my) ** 2;
    xy += (x - mx) * (y - my);
  }
  const angle = Math.atan2(2 * xy, xx - yy) / 2;
  const found: Point = [Math.cos(angle), Math.sin(angle)];
  return found[0] * like[0] + found[1] * like[1] < 0 ? [-found[0], -found[1]] : found;
}

/** Twin of rim there: border pixels of the site with the direction that leads out of it. */
export function rimPlainly(
  hole: Uint8Array,
  width: number,
  height: number,
): [number, number, number][] {
  const rim: [number, number, number][] = [];
  for (let y = 1; y < height - 1; y++)
    for (let p = y * width + 1; p < (y + 1) * width - 1; p++) {
      if (!hole[p]) continue;
      if (hole[p - 1] && hole[p + 1] && hole[p - width] && hole[p + width]) continue;
      const [ox, oy] = outOf(hole, width, height, p - y * width, y);
      const length = Math.hypot(ox, oy);
      if (length > 0) rim.push([p, ox / length, oy / length]);
    }
  return rim;
}

/** The sum of the ways from a point to the pixels outside the site within 3 px. */
function outOf(hole: Uint8Array, width: number, height: number, x: number, y: number): Point {
  let [ox, oy] = [0, 0];
  for (let b = Math.max(0, y - 3); b <= Math.min(height - 1, y + 3); b++)
    for (let a = Math.max(0, x - 3); a <= Math.min(width - 1, x + 3); a++)
      if (!hole[b * width + a]) {
        ox += a - x;
        oy += b - y;
      }
  return [ox, oy];
}
