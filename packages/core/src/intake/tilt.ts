import { layerAt } from '../raster/layers.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { blurred } from '../raster/plane.js';
import type { Raster } from '../raster/raster.js';

/** How far a picture stands turned, and how sure that is. */
export interface Tilt {
  /** Degrees the content stands turned counter-clockwise on screen. */
  readonly angle: number;
  /** How far the best angle stands out, in spreads of all others; under about 6 nothing in it is level or plumb. */
  readonly clearness: number;
}

/** Longest side the tilt is measured at, px. */
const LONGEST = 1400;
/** Largest tilt that is looked for, degrees. */
const MOST = 15;
/** Tilts are mostly smaller than this, degrees: common practice, no source. */
const USUAL = 10;
const COARSE = 0.1;
const FINE = 0.02;
const DEGREE = Math.PI / 180;

/** Edge pixels that may lie on level (or plumb) lines. */
interface Edges {
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** Signed strength across the line. */
  readonly w: readonly number[];
}

/**
 * The tilt of a picture by its level and plumb lines: edges are summed up along lines of every angle; long straight
 * ones add up to much where the angle is theirs (a Radon transform of the signed slopes; Deans, "The Radon Transform
 * and Some of Its Applications", 1983). Edges count by the square root of their strength, and less towards the
 * border, so that what is judged stays the same however far the picture is turned.
 */
export function tiltOf(picture: Raster): Tilt {
  const longest = Math.max(picture.width, picture.height);
  const grey = blurred(
    layerAt(picture, Math.max(0, Math.ceil(Math.log2(longest / LONGEST)))).grey,
    1,
  );
  const { flat, plumb } = edgesOf(grey);
  const bins = new Float32Array(2 * Math.ceil(Math.sqrt(grey.width ** 2 + grey.height ** 2)) + 8);
  const energy = (angle: number): number =>
    energyAlong(flat, angle, false, bins) + energyAlong(plumb, angle, true, bins);
  const coarse: number[] = [];
  for (let k = 0; k <= (2 * MOST) / COARSE; k++) coarse.push(energy(-MOST + k * COARSE));
  const usual = medianOf(coarse);
  const spread = medianOf(coarse.map((e) => Math.abs(e - usual))) * 1.4826 || 1;
  // Between lines of like strength, pictures are held more nearly level than not.
  const likely = coarse.map(
    (e, k) => (e - usual) * Math.exp(-(((k * COARSE - MOST) / USUAL) ** 2)),
  );
  const best = likely.indexOf(Math.max(...likely));
  const around = -MOST + best * COARSE;
  const fine: number[] = [];
  const steps = Math.round((2 * COARSE) / FINE);
  for (let k = -steps; k <= steps; k++) fine.push(energy(around + k * FINE));
  const at = fine.indexOf(Math.max(...fine));
  return { angle: around + (at - steps) * FINE, clearness: (coarse[best]! - usual) / spread };
}

function edgesOf({ width, height, values }: Plane): { flat: Edges; plumb: Edges } {
  const flat = { x: [] as number[], y: [] as number[], w: [] as number[] };
  const plumb = { x: [] as number[], y: [] as number[], w: [] as number[] };
  const steep = Math.tan((MOST + 4) * DEGREE);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const p = y * width + x;
      const gx = (values[p + 1]! - values[p - 1]!) / 2;
      const gy = (values[p + width]! - values[p - width]!) / 2;
      const ax = Math.abs(gx);
      const ay = Math.abs(gy);
      if (Math.max(ax, ay) < 1.5) continue;
      const level = ax <= ay * steep;
      if (!level && ay > ax * steep) continue;
      const dx = (2 * x) / (width - 1) - 1;
      const dy = (2 * y) / (height - 1) - 1;
      const inside = 1 - dx * dx - dy * dy;
      if (inside <= 0) continue;
      const g = level ? gy : gx;
      const to = level ? flat : plumb;
      to.x.push(x - width / 2);
      to.y.push(y - height / 2);
      to.w.push((g < 0 ? -1 : 1) * Math.sqrt(Math.abs(g)) * inside);
    }
  return { flat, plumb };
}

/** How much adds up on lines of one angle: the sum of the squares of the sums along them. */
function energyAlong(
  { x, y, w }: Edges,
  angle: number,
  plumb: boolean,
  bins: Float32Array,
): number {
  const s = Math.sin(angle * DEGREE);
  const c = Math.cos(angle * DEGREE);
  const [ux, uy] = plumb ? [c, -s] : [s, c];
  const middle = bins.length / 2;
  bins.fill(0);
  for (let i = 0; i < w.length; i++) {
    const d = x[i]! * ux + y[i]! * uy + middle;
    const k = d | 0;
    const f = d - k;
    bins[k]! += w[i]! * (1 - f);
    bins[k + 1]! += w[i]! * f;
  }
  let sum = 0;
  for (const b of bins) sum += b * b;
  return sum;
}
