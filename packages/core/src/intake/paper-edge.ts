import { medianOf } from '../raster/median.js';
import type { Raster } from '../raster/raster.js';
import { colourChannels, whiteOf } from '../raster/raster.js';
import type { Point } from '../shape/site.js';
import type { Line } from './quad.js';

/** Where a paper's edge was found. */
export interface PaperEdge {
  readonly line: Line;
  /** Middle step across it, 8-bit levels. */
  readonly step: number;
  /** px it lies outward of the guess, in the middle of the side. */
  readonly outward: number;
}

export interface EdgeSearch {
  /** px outward and inward that are searched. */
  readonly outward: number;
  readonly inward: number;
  /** Degrees the edge may stand off the guess. */
  readonly turn: number;
  /** Least step, 8-bit levels; 0 for any that stands out. */
  readonly least: number;
}

/** Pieces a side is measured in. */
const SECTIONS = 24;
/** Share of a side left out at each end, where another side is near. */
const ENDS = 0.06;
/** Grain at which hue is looked at: codecs blur it. */
const COARSE = 2.5;
/** Samples a grain. */
const FINE = 2;
/** Samples on either side of a place that are compared. */
const RUN = 4;
/** Samples outward where a slope would show too, and how much of it is taken off. */
const OUTSIDE = 8;
const SLOPE = 1.5;
const MARGIN = OUTSIDE + RUN;
/** How much of an edge's step may show a run's length outward; more of a shadow's does. */
const SHARP = 0.47;
const LEAST_STEP = 1.5;

/**
 * The outermost straight step near a guessed side: the edge of the paper, not that of the image on it, and not
 * the soft shadow beside it.
 * @param from, to ends of the guessed side; the outside lies left of the way from one to the other
 * @returns null when no straight step is there
 */
export function paperEdge(
  picture: Raster,
  from: Point,
  to: Point,
  search: EdgeSearch,
): PaperEdge | null {
  const fine = edgeBy(picture, from, to, search, 1, false);
  const coarse = edgeBy(picture, from, to, search, COARSE, true);
  if (!fine || !coarse) return fine ?? coarse;
  return coarse.outward > fine.outward + 4 * COARSE ? coarse : fine;
}

/** @param grain px a step may take @param hueOnly whether tone counts, which shadows change */
function edgeBy(
  picture: Raster,
  from: Point,
  to: Point,
  search: EdgeSearch,
  grain: number,
  hueOnly: boolean,
): PaperEdge | null {
  const length = Math.sqrt((to[0] - from[0]) ** 2 + (to[1] - from[1]) ** 2);
  if (length < 20) return null;
  const [ux, uy] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  const [nx, ny] = [uy, -ux];
  const profiles = sectionsOf(picture, from, [ux, uy], [nx, ny], length, search, grain);
  const steps = profiles.map((profile) =>
    stepsOf(hueOnly ? huesOf(profile) : [...profile, ...huesOf(profile)]),
  );
  const places = steps[0]?.length ?? 0;
  if (places < 4 * RUN) return null;
  const along = Array.from({ length: SECTIONS }, (_, k) => (2 * (k + 0.5)) / SECTIONS - 1);
  const reach = (search.turn * Math.PI * length) / 360 / grain;
  const peak = outermost(scoresOf(steps, along, reach), search.least);
  if (!peak) return null;
  const fine = refined(steps, along, peak);
  // A place's distance outward from the guess, px, in the middle of the side and how it grows towards its end.
  const outward = search.outward - ((MARGIN + fine.place) * grain) / FINE;
  const rise = (-fine.slope * grain) / (length * (0.5 - ENDS));
  const [dx, dy] = [ux + rise * nx, uy + rise * ny];
  const norm = Math.sqrt(dx * dx + dy * dy);
  const [ex, ey] = [dy / norm, -dx / norm];
  const mx = (from[0] + to[0]) / 2 + outward * nx;
  const my = (from[1] + to[1]) / 2 + outward * ny;
  return { line: { nx: ex, ny: ey, d: ex * mx + ey * my }, step: peak.step, outward };
}

/** The best slope at every place, and the step most sections agree on there. @param reach px the ends may be off */
function scoresOf(
  steps: readonly Float32Array[],
  along: readonly number[],
  reach: number,
): Scored[] {
  const places = steps[0]!.length;
  const here: number[] = new Array<number>(SECTIONS);
  return Array.from({ length: places }, (_, place) => {
    let best = { place, slope: 0, step: 0 };
    for (let slope = -reach; slope <= reach; slope += 0.5) {
      let better = 0;
      for (let k = 0; k < SECTIONS; k++) {
        const at = Math.round(place + along[k]! * slope * FINE);
        const step = at >= 0 && at < places ? steps[k]![at]! : 0;
        here[k] = step;
        if ((step < 0 ? -step : step) > best.step) better++;
      }
      // Less than half of the sections cannot agree on more.
      if (better < SECTIONS / 2) continue;
      const step = agreed(here);
      if (step > best.step) best = { place, slope, step };
    }
    return best;
  });
}

/** Profiles across a side from outside inward, one a section, channels one after another; 8-bit levels. */
function sectionsOf(
  { width, height, channels, data }: Raster,
  from: Point,
  [ux, uy]: Point,
  [nx, ny]: Point,
  length: number,
  { outward, inward }: EdgeSearch,
  grain: number,
): Float32Array[][] {
  const colours = colourChannels(channels);
  const scale = 255 / whiteOf(data);
  const samples = Math.ceil(((outward + inward) * FINE) / grain) + 1;
  const start = ENDS * length;
  const each = (length * (1 - 2 * ENDS)) / SECTIONS;
  const rays = Math.min(24, Math.max(3, Math.round(each)));
  return Array.from({ length: SECTIONS }, (_, k) => {
    const profile = Array.from({ length: colours }, () => new Float32Array(samples));
    for (let r = 0; r < rays; r++) {
      const t = start + (k + (r + 0.5) / rays) * each;
      for (let i = 0; i < samples; i++) {
        const out = outward - (i * grain) / FINE;
        const x = Math.min(width - 1.001, Math.max(0, from[0] + ux * t + nx * out));
        const y = Math.min(height - 1.001, Math.max(0, from[1] + uy * t + ny * out));
        const p = ((y | 0) * width + (x | 0)) * channels;
        const below = width * channels;
        const fx = x - (x | 0);
        const fy = y - (y | 0);
        for (let c = 0; c < colours; c++) {
          const q = p + c;
          profile[c]![i]! +=
            ((data[q]! * (1 - fx) + data[q + channels]! * fx) * (1 - fy) +
              (data[q + below]! * (1 - fx) + data[q + below + channels]! * fx) * fy) *
            (scale / rays);
        }
      }
    }
    return profile;
  });
}

/**
 * The step at every place of a profile, the largest measure's, signed: of tone and of hue, which a shadow leaves as
 * it is.
 */
function stepsOf(measures: readonly Float32Array[]): Float32Array {
  const steps = new Float32Array(Math.max(0, (measures[0]?.length ?? 0) - 2 * MARGIN));
  for (let i = 0; i < steps.length; i++)
    for (const values of measures) {
      const step = stepAt(values, i + MARGIN);
      if (Math.abs(step) > Math.abs(steps[i]!)) steps[i] = step;
    }
  return steps;
}

/** Hue as ratios of the channels, in about the scale of 8-bit levels. */
function huesOf(profile: readonly Float32Array[]): Float32Array[] {
  const [r, g, b] = profile;
  if (!g || !b) return [];
  const ratio = (one: Float32Array, other: Float32Array): Float32Array =>
    one.map((v, i) => 128 * Math.log((v + 16) / (other[i]! + 16)));
  return [ratio(r!, b), ratio(r!, g)];
}

/** The change at a place beyond what changes already outside of it: a shadow's slope goes on, an edge stands alone. */
function stepAt(values: Float32Array, place: number): number {
  const here = changeAt(values, place);
  const rest = Math.abs(here) - SLOPE * Math.abs(changeAt(values, place - OUTSIDE));
  return rest > 0 ? (here < 0 ? -rest : rest) : 0;
}

function changeAt(values: Float32Array, place: number): number {
  let sum = 0;
  for (let k = 1; k <= RUN; k++) sum += values[place + k]! - values[place - k]!;
  return sum / RUN;
}

/** What most sections agree on: the middle step, with its sign or, where the print's tone changes along the side, without. */
function agreed(steps: readonly number[]): number {
  const signed = Math.abs(medianOf(steps));
  const sizes = steps.map(Math.abs).sort((a, b) => a - b);
  return Math.max(signed, sizes[Math.floor(0.3 * sizes.length)]!);
}

interface Scored {
  readonly place: number;
  readonly slope: number;
  readonly step: number;
}

/** The first clear peak from outside. */
function outermost(scores: readonly Scored[], floor: number): Scored | null {
  const calm = scores.slice(0, scores.length >> 1).map((s) => s.step);
  const noise = calm.sort((a, b) => a - b)[calm.length >> 2]!;
  const least = Math.max(LEAST_STEP, floor, 3 * noise);
  for (let k = RUN; k < scores.length; k++) {
    const here = scores[k]!.step;
    if (here < least || scores[k - RUN]!.step > SHARP * here) continue;
    if (!scores.slice(k - RUN, k + RUN + 1).some((s) => s.step > here)) return scores[k]!;
  }
  return null;
}

/** Place and slope to fractions: the line through the sections' own steepest places near the peak, outliers left out. */
function refined(steps: readonly Float32Array[], along: readonly number[], peak: Scored): Scored {
  const points: [number, number][] = [];
  steps.forEach((s, k) => {
    const guess = peak.place + along[k]! * peak.slope * FINE;
    let at = -1;
    for (let i = Math.max(1, Math.ceil(guess - 3)); i <= Math.min(s.length - 2, guess + 3); i++)
      if (at < 0 || Math.abs(s[i]!) > Math.abs(s[at]!)) at = i;
    if (at < 0 || Math.abs(s[at]!) < 0.3 * peak.step) return;
    const [a, b, c] = [Math.abs(s[at - 1]!), Math.abs(s[at]!), Math.abs(s[at + 1]!)];
    const bend = a - 2 * b + c;
    points.push([
      along[k]!,
      at + (bend < 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (a - c)) / bend)) : 0),
    ]);
  });
  if (points.length < 4) return peak;
  let kept = points;
  let [place, slope] = [peak.place, peak.slope * FINE];
  for (let pass = 0; pass < 4; pass++) {
    const n = kept.length;
    const mx = kept.reduce((sum, p) => sum + p[0], 0) / n;
    const my = kept.reduce((sum, p) => sum + p[1], 0) / n;
    const sxx = kept.reduce((sum, p) => sum + (p[0] - mx) ** 2, 0);
    if (sxx < 1e-6) break;
    slope = kept.reduce((sum, p) => sum + (p[0] - mx) * (p[1] - my), 0) / sxx;
    place = my - slope * mx;
    const off = (p: readonly [number, number]): number => Math.abs(p[1] - place - slope * p[0]);
    const usual = medianOf(kept.map(off)) * 1.4826 + 0.1;
    const next = points.filter((p) => off(p) < 2.5 * usual);
    if (next.length < 4) break;
    kept = next;
  }
  return { place, slope: slope / FINE, step: peak.step };
}
