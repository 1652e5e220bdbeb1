import { ciede2000 } from '../colour/ciede2000.js';
import { medianOf } from '../raster/median.js';
import type { Plane } from '../raster/plane.js';
import { sampleAt } from '../raster/plane.js';
import { calmFirst, middleOf, placesIn } from './middle.js';
import type { RimPoint, SiteWindow } from './site-window.js';
import { SMALL_RIM } from './site-window.js';

/** Where tone is read: px from the border, and px along it that hardly say anything new about each other. */
interface Reading {
  readonly at: readonly number[];
  readonly alike: number;
}

/** Close by, where texture differs least, and else a little off, where a step shows too that fades over the border. */
const READINGS: readonly [Reading, Reading] = [
  { at: [0.75], alike: 3 },
  { at: [1, 2, 3], alike: 5 },
];
/** Standard errors a step must be, and what no spread is taken to be below, CIELAB. */
const SURE = 3;
const SPREAD = 0.3;
/** Variance that no place is taken to be below, CIELAB squared. */
const CALM = 1;

/** How many times as much as the spots beside it a small site must step. */
const MORE = 1.5;
/** px between a small site and the spots beside it. */
const GAP = 3;

/**
 * Step of tone between a site and its surroundings: the median over the border of what lies just inside less what lies just
 * outside, so that edges and slopes that cross the border cancel.
 * @returns CIEDE2000; 0 when the step is no larger than chance
 */
export function toneStep(window: SiteWindow): number {
  const { lab, rim, mask } = window;
  if (rim.length < 12) return 0;
  const weights = calmFirst(lab[0], rim, CALM);
  const places = placesIn(mask);
  const read = ({ at, alike }: Reading) => ({
    at,
    steps: lab.map((plane) => middleOf(stepsOf(plane, rim, at), weights, alike, SPREAD, places)),
  });
  const isSure = ({ steps }: ReturnType<typeof read>): boolean =>
    steps.some(({ value, doubt }) => Math.abs(value) > SURE * doubt);
  const close = read(READINGS[0]);
  const best = isSure(close) ? close : [read(READINGS[1])].find(isSure);
  if (!best) return 0;
  const step = differenceOf(lab, rim, best.steps.map(({ value }) => value) as Triple);
  return rim.length >= SMALL_RIM || step > MORE * usualStep(window, best.at) ? step : 0;
}

type Triple = [number, number, number];

/** CIEDE2000 of a step from the tone outside. */
function differenceOf(lab: SiteWindow['lab'], rim: readonly RimPoint[], step: Triple): number {
  const [L, a, b] = lab.map((plane) =>
    medianOf(rim.map(({ x, y, nx, ny }) => sampleAt(plane, x + 3 * nx, y + 3 * ny))),
  ) as Triple;
  const [dL, da, db] = step;
  return ciede2000({ L, a, b }, { L: L + dL, a: a + da, b: b + db });
}

/** What the same border laid over the untouched surroundings would step by: the upper quartile of eight places. */
function usualStep({ lab, rim, changed, rect }: SiteWindow, at: readonly number[]): number {
  const xs = rim.map(({ x }) => x);
  const ys = rim.map(({ y }) => y);
  const across = Math.max(...xs) - Math.min(...xs) + GAP;
  const down = Math.max(...ys) - Math.min(...ys) + GAP;
  const steps: number[] = [];
  for (const [u, v] of AROUND) {
    const moved = rim
      .map((point) => ({ ...point, x: point.x + u * across, y: point.y + v * down }))
      .filter(({ x, y }) => x >= 0 && y >= 0 && x < rect.width - 1 && y < rect.height - 1)
      .filter(({ x, y }) => !changed[Math.round(y) * rect.width + Math.round(x)]);
    if (moved.length < 0.8 * rim.length) continue;
    steps.push(
      differenceOf(lab, moved, lab.map((plane) => medianOf(stepsOf(plane, moved, at))) as Triple),
    );
  }
  return steps.sort((one, other) => one - other)[Math.floor(0.75 * steps.length)] ?? 0;
}

const AROUND = [
  [-1, -1],
  [0, -1],
  [1, -1],
  [-1, 0],
  [1, 0],
  [-1, 1],
  [0, 1],
  [1, 1],
] as const;

/** Inside less outside at every place of the border. */
function stepsOf(plane: Plane, rim: readonly RimPoint[], at: readonly number[]): number[] {
  return rim.map(({ x, y, nx, ny }) => {
    let sum = 0;
    for (const t of at)
      sum += sampleAt(plane, x - t * nx, y - t * ny) - sampleAt(plane, x + t * nx, y + t * ny);
    return sum / at.length;
  });
}
