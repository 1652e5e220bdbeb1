import type { Raster } from '../raster/raster.js';
import { SIDES } from '../shape/sides.js';
import type { Candidate } from './candidate.js';

/** Share of its pixels by which a finding may lie on what others have claimed. */
export const SHARED = 0.4;
/** Share of its outline that wires take when a region is only what is seen through a mesh. */
const MESHED = 0.3;
/** Share of its length by which a crease runs along a loss when it is but its fringe. */
const FRINGE = 0.6;
/** Share of its length by which a crease runs over writing when it but strings letters together. */
const STRUNG = 0.3;

/** Whether a region ends at what has been claimed: nothing but a mesh claims before it. */
export function meshed(
  { pixels }: Candidate,
  claimed: Uint8Array,
  { width, height }: Raster,
): boolean {
  const own = new Set(pixels);
  let [edge, met] = [0, 0];
  for (const p of pixels)
    for (const step of [-1, 1, -width, width]) {
      const [next, far] = [p + step, p + 3 * step];
      if (own.has(next) || next < 0 || next >= width * height) continue;
      edge++;
      if (claimed[next] || claimed[far]) met++;
    }
  return edge > 0 && met > MESHED * edge;
}

/** Tells whether most of some writing lies on surer creases and wires: it is they. */
export function surerLines(
  all: readonly Candidate[],
  { width, height }: Raster,
): (ink: Candidate) => boolean {
  const lines = all
    .filter(({ line, kind }) => line && kind !== 'lines')
    .sort((a, b) => a.odds - b.odds);
  if (!lines.length || !all.some(({ kind }) => kind === 'ink')) return () => false;
  // Of each pixel the surest line, counted from 1.
  const surest = new Uint16Array(width * height);
  lines.forEach(({ pixels }, k) => {
    for (const p of pixels) surest[p] = k + 1;
  });
  return ({ pixels, odds }) => {
    const from = lines.findIndex((line) => line.odds > odds) + 1;
    if (!from) return false;
    const on = pixels.reduce((sum, p) => sum + (surest[p]! >= from ? 1 : 0), 0);
    return on > SHARED * pixels.length;
  };
}

/** Tells whether all there is of an ink is a single, surer hair: letters are much like hairs, but come in numbers. */
export function surerHair(all: readonly Candidate[]): (ink: Candidate) => boolean {
  const hairs = all.filter(({ kind }) => kind === 'lines');
  return ({ pixels, odds, isAlone }) => {
    if (!isAlone) return false;
    const own = new Set(pixels);
    return hairs.some(
      (hair) =>
        hair.odds > odds &&
        hair.pixels.reduce((sum, p) => sum + (own.has(p) ? 1 : 0), 0) > SHARED * own.size,
    );
  };
}

/** Whether a crease runs along what has been claimed: it is the white fringe of a tear. */
export function fringes(
  { line }: Candidate,
  claimed: Uint8Array,
  { width, height }: Raster,
): boolean {
  if (!line) return false;
  const beside = line.filter(([x, y, w]) =>
    SIDES.some(([dx, dy]) => {
      const [px, py] = [Math.round(x + w * dx), Math.round(y + w * dy)];
      return px >= 0 && py >= 0 && px < width && py < height && claimed[py * width + px] === 1;
    }),
  );
  return beside.length > FRINGE * line.length;
}

/** Whether a crease strings letters together. */
export function strings(
  { line }: Candidate,
  written: Uint8Array,
  { width, height }: Raster,
): boolean {
  if (!line) return false;
  const over = line.filter(([x, y, w]) => {
    const reach = Math.round(w / 2);
    for (let v = Math.round(y) - reach; v <= Math.round(y) + reach; v++)
      for (let u = Math.round(x) - reach; u <= Math.round(x) + reach; u++)
        if (u >= 0 && v >= 0 && u < width && v < height && written[v * width + u]) return true;
    return false;
  });
  return over.length > STRUNG * line.length;
}
