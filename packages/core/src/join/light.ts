import { toLinear } from '../colour/srgb.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import { solveSmall } from '../solve/small.js';
import type { Size } from './cameras.js';
import type { Surface } from './surface.js';

/** How each frame's light differs from the others'. */
export interface Light {
  /** What each frame's linear samples are multiplied by, a channel; null for frames that do not belong. */
  readonly gains: readonly (readonly number[] | null)[];
  /** Logarithm of the light at r from the middle, r = 1 in a corner: first r^2 + second r^4. */
  readonly falloff: readonly [number, number];
}

/** Places across the canvas's longer side at which frames are compared. */
const PLACES = 80;
/** Codes between which a sample says what light there was. */
const [DARKEST, BRIGHTEST] = [10, 246];

/** One place seen in two frames. */
interface Sight {
  readonly one: number;
  readonly other: number;
  /** Logarithm of the ratio of their light, a channel. */
  readonly ratio: readonly number[];
  /** Squared distances from the frames' middles, 1 in a corner. */
  readonly r1: number;
  readonly r2: number;
}

/**
 * Exposure of every frame and the lens's common falloff, from what overlapping frames show of the same places
 * (Goldman, "Vignette and Exposure Calibration and Compensation", IEEE TPAMI 32(12), 2010, in logarithms, so that one
 * linear system gives all; places that disagree are taken out in rounds).
 * @param planes each frame's channels, reduced so far that a place is the mean of many pixels, 0..255
 */
export function lightOf(
  planes: readonly (readonly Plane[] | null)[],
  sizes: readonly Size[],
  surface: Surface,
): Light {
  const sights = sightsOf(planes, sizes, surface);
  const count = sizes.length;
  const channels = Math.max(...planes.map((p) => p?.length ?? 0));
  const mean = (s: Sight): number => s.ratio.reduce((sum, v) => sum + v, 0) / s.ratio.length;
  const { falloff, kept } = falloffOf(sights, count, mean);
  const bent = (s: Sight): number =>
    falloff[0] * (s.r1 - s.r2) + falloff[1] * (s.r1 ** 2 - s.r2 ** 2);
  const exposures = Array.from({ length: channels }, (_, c) =>
    exposuresOf(kept, count, (s) => (s.ratio[c] ?? s.ratio[0]!) - bent(s)),
  );
  return {
    falloff,
    gains: surface.toFrame.map((to, k) => to && exposures.map((e) => Math.exp(-e[k]!))),
  };
}

function sightsOf(
  planes: readonly (readonly Plane[] | null)[],
  sizes: readonly Size[],
  { width, height, toFrame, boxes }: Surface,
): Sight[] {
  const step = Math.max(1, Math.max(width, height) / PLACES);
  const at = new Float64Array(2);
  const sights: Sight[] = [];
  for (let y = step / 2; y < height; y += step)
    for (let x = step / 2; x < width; x += step) {
      const seen: { frame: number; light: number[]; r: number }[] = [];
      toFrame.forEach((to, frame) => {
        const box = boxes[frame];
        if (
          !to ||
          !box ||
          x < box.x ||
          y < box.y ||
          x >= box.x + box.width ||
          y >= box.y + box.height
        )
          return;
        to(x, y, at);
        const [u, v] = [at[0]!, at[1]!];
        const size = sizes[frame]!;
        if (u < 3 || v < 3 || u > size.width - 4 || v > size.height - 4) return;
        const scale = planes[frame]![0]!.width / size.width;
        const codes = planes[frame]!.map((p) =>
          sampleAt(p, (u + 0.5) * scale - 0.5, (v + 0.5) * scale - 0.5),
        );
        if (codes.some((c) => c < DARKEST || c > BRIGHTEST)) return;
        seen.push({
          frame,
          light: codes.map((c) => Math.log(toLinear(c / 255))),
          r: squaredFrom(size, u, v),
        });
      });
      for (let i = 0; i < seen.length; i++)
        for (let j = i + 1; j < seen.length; j++) {
          const [a, b] = [seen[i]!, seen[j]!];
          sights.push({
            one: a.frame,
            other: b.frame,
            ratio: a.light.map((v, c) => v - (b.light[c] ?? b.light[0]!)),
            r1: a.r,
            r2: b.r,
          });
        }
    }
  return sights;
}

/** Squared distance from the middle, 1 in a corner. */
export function squaredFrom({ width, height }: Size, x: number, y: number): number {
  const [u, v] = [x - (width - 1) / 2, y - (height - 1) / 2];
  return (u * u + v * v) / ((width * width + height * height) / 4);
}

/** The falloff, and the sights that agree with it. */
function falloffOf(
  sights: readonly Sight[],
  count: number,
  value: (s: Sight) => number,
): { falloff: [number, number]; kept: readonly Sight[] } {
  let kept = sights;
  let solved = new Array<number>(count + 2).fill(0);
  for (let round = 0; round < 4; round++) {
    const n = count + 2;
    const { a, b } = system(n);
    // A lens without falloff is what is believed when nothing speaks for one.
    a[count]![count]! += 0.002 * kept.length + 1e-9;
    a[count + 1]![count + 1]! += 0.004 * kept.length + 1e-9;
    for (let k = 0; k < count; k++) a[k]![k]! += 1e-6 * kept.length + 1e-9;
    for (const s of kept) {
      const row: [number, number][] = [
        [s.one, 1],
        [s.other, -1],
        [count, s.r1 - s.r2],
        [count + 1, s.r1 ** 2 - s.r2 ** 2],
      ];
      const v = value(s);
      for (const [i, x] of row) {
        b[i]! += x * v;
        for (const [j, y] of row) a[i]![j]! += x * y;
      }
    }
    solved = solveSmall(a, b);
    const off = (s: Sight): number =>
      Math.abs(
        value(s) -
          (solved[s.one]! -
            solved[s.other]! +
            solved[count]! * (s.r1 - s.r2) +
            solved[count + 1]! * (s.r1 ** 2 - s.r2 ** 2)),
      );
    if (!kept.length) break;
    const limit = Math.max(0.02, 3 * medianOf(sights.map(off)));
    kept = sights.filter((s) => off(s) < limit);
  }
  return { falloff: [solved[count]!, solved[count + 1]!], kept };
}

function exposuresOf(
  sights: readonly Sight[],
  count: number,
  value: (s: Sight) => number,
): number[] {
  const { a, b } = system(count);
  for (let k = 0; k < count; k++) a[k]![k]! += 1e-6 * sights.length + 1e-9;
  for (const s of sights) {
    const v = value(s);
    a[s.one]![s.one]! += 1;
    a[s.other]![s.other]! += 1;
    a[s.one]![s.other]! -= 1;
    a[s.other]![s.one]! -= 1;
    b[s.one]! += v;
    b[s.other]! -= v;
  }
  return solveSmall(a, b);
}

function system(n: number): { a: number[][]; b: number[] } {
  return {
    a: Array.from({ length: n }, () => new Array<number>(n).fill(0)),
    b: new Array<number>(n).fill(0),
  };
}
