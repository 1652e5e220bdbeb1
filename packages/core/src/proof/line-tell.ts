import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import type { Rect } from '../raster/rect.js';
import type { RimPoint, SiteWindow } from './site-window.js';

/** Half the width of the profiles across a line, and how far it may have jumped, px. */
const HALF = 9;
const JUMP = 6;
/** Slope from which on something is a line's edge, codes a px. */
const CLEAR = 7;
const N = 2 * HALF + 1;

/** How far a line that crosses the site's border jumps there, px, and where (px of the picture). */
export interface Jump {
  readonly px: number;
  readonly box: Rect;
}

/**
 * Lines that jump at the site's border: a clear straight edge outside is looked for inside, in its own direction; it jumps
 * when it is found beside its place and not at it.
 */
export function jumpOf({ luma, rim, rect }: SiteWindow): Jump | null {
  let worst: Jump | null = null;
  const jumps = rim.map((p) => jumpAt(luma, p));
  rim.forEach((p, i) => {
    const here = jumps[i]!;
    if (Math.abs(here) < 1) return;
    // One place may be chance; those beside it have to say the same.
    let [agree, asked] = [0, 0];
    rim.forEach((q, j) => {
      if (j === i || Math.abs(q.x - p.x) > 3.2 || Math.abs(q.y - p.y) > 3.2) return;
      asked++;
      if (Math.abs(jumps[j]! - here) <= 1) agree++;
    });
    if (agree < 2 || agree < 0.4 * asked) return;
    if (worst && Math.abs(here) <= worst.px) return;
    worst = {
      px: Math.abs(here),
      box: {
        x: rect.x + Math.round(p.x) - 8,
        y: rect.y + Math.round(p.y) - 8,
        width: 17,
        height: 17,
      },
    };
  });
  return worst;
}

/** Signed jump at one place of the border, 0 when there is no line or it goes on. */
function jumpAt(luma: Plane, { x, y, nx, ny }: RimPoint): number {
  const [ox, oy] = [x + 5 * nx, y + 5 * ny];
  let [xx, xy, yy, most] = [0, 0, 0, 0];
  for (let v = -3; v <= 3; v++)
    for (let u = -3; u <= 3; u++) {
      const gx = (sampleAt(luma, ox + u + 1, oy + v) - sampleAt(luma, ox + u - 1, oy + v)) / 2;
      const gy = (sampleAt(luma, ox + u, oy + v + 1) - sampleAt(luma, ox + u, oy + v - 1)) / 2;
      xx += gx * gx;
      xy += gx * gy;
      yy += gy * gy;
      most = Math.max(most, gx * gx + gy * gy);
    }
  if (most < CLEAR * CLEAR) return 0;
  const root = Math.sqrt((xx - yy) ** 2 + 4 * xy * xy);
  if (root < 0.75 * (xx + yy)) return 0;
  // Along the line: square to the direction of most slope.
  const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
  let [ex, ey] = [-Math.sin(angle), Math.cos(angle)];
  const out = ex * nx + ey * ny;
  if (Math.abs(out) < 0.5) return 0;
  if (out < 0) [ex, ey] = [-ex, -ey];
  const profile = (from: number, to: number): Float64Array => {
    const values = new Float64Array(N + 2 * JUMP);
    for (let s = 0; s < values.length; s++) {
      const across = s - HALF - JUMP;
      let sum = 0;
      for (let u = from; u <= to; u++)
        sum += sampleAt(luma, x + u * ex - across * ey, y + u * ey + across * ex);
      values[s] = sum / (to - from + 1);
    }
    // Slopes: a step that is shifted a little still resembles itself, its slope does not.
    return values.map((_, s) => (values[s + 1] ?? values[s]!) - (values[s - 1] ?? values[s]!));
  };
  const near = profile(2, 6);
  const far = profile(6, 10);
  if (likeness(near, far, 0) < 0.85) return 0;
  const inner = profile(-6, -2);
  const still = likeness(near, inner, 0);
  if (still > 0.6) return 0;
  let best = { shift: 0, like: still };
  for (let shift = -JUMP; shift <= JUMP; shift++) {
    const like = likeness(near, inner, shift);
    if (like > best.like) best = { shift, like };
  }
  if (
    best.like < 0.8 + 0.02 * Math.abs(best.shift) ||
    best.like - still < 0.45 ||
    Math.abs(best.shift) === JUMP
  )
    return 0;
  // Half a pixel is told from the neighbours by a parabola.
  const [a, b, c] = [-1, 0, 1].map((d) => likeness(near, inner, best.shift + d)) as [
    number,
    number,
    number,
  ];
  const bend = a - 2 * b + c;
  return best.shift + (bend < 0 ? (0.5 * (a - c)) / bend : 0);
}

/** Correlation of one profile's middle with another shifted. */
function likeness(one: Float64Array, other: Float64Array, shift: number): number {
  let [a, b, aa, bb, ab] = [0, 0, 0, 0, 0];
  for (let s = JUMP; s < JUMP + N; s++) {
    const u = one[s]!;
    const v = other[s + shift] ?? other[s]!;
    a += u;
    b += v;
    aa += u * u;
    bb += v * v;
    ab += u * v;
  }
  const va = aa - (a * a) / N;
  const vb = bb - (b * b) / N;
  // A faint profile correlates with anything.
  if (va < N * 6 || vb < N * 3) return 0;
  return (ab - (a * b) / N) / Math.sqrt(va * vb);
}
