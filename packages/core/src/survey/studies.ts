import type { Halves } from '../raster/halves.js';
import { layerOf, readingOf } from '../raster/halves.js';
import type { Raster } from '../raster/raster.js';
import { CREASE_LEVELS } from './creases.js';
import type { FindingKind } from './finding.js';
import type { Layer } from '../raster/layers.js';
import type { Loss } from './losses.js';
import { lossesOf } from './losses.js';
import { foreignAt, withForeign } from './one-tone.js';
import { pullsOf } from './pulls.js';
import type { Speck } from './specks.js';
import { specksAt } from './specks.js';
import type { Strand } from './strands.js';
import { strandsAt } from './strands.js';
import type { Blemish } from './blemishes.js';
import { blemishesOf } from './blemishes.js';
import { foldsOf } from './folds.js';
import type { Stain } from './stains.js';
import { stainsOf } from './stains.js';

/** A region of the picture, in its pixels. */
export interface Region {
  readonly pixels: Int32Array;
  readonly odds: number;
  readonly polarity: 1 | -1;
}

/** One piece of the work of a survey, so that several run side by side: what is looked for at a level of the picture. */
export interface Study {
  readonly level: number;
  readonly of: readonly Studied['of'][];
}

/** What a study found; plain data. What is foreign is null in pictures that are not of one tone. */
export type Studied =
  | { readonly of: 'strands'; readonly strands: readonly Strand[] }
  | { readonly of: 'foreign'; readonly strands: readonly Strand[] | null }
  | { readonly of: 'specks'; readonly specks: readonly Speck[] }
  | { readonly of: 'blemishes'; readonly level: number; readonly blemishes: readonly Blemish[] }
  | { readonly of: 'losses'; readonly level: number; readonly losses: readonly Loss[] }
  | {
      readonly of: 'tones';
      readonly level: number;
      readonly stains: readonly Stain[];
      readonly pulls: readonly Region[];
    };

/** Lines are looked for at no more than so many pixels, regions, tones and blemishes at fewer. */
export const MOST = { strands: 3.6e6, losses: 1.8e6, blemishes: 1.2e6, tones: 1.6e5 } as const;
const LEVELS = { strands: 4, specks: 4, blemishes: 2 } as const;

type Frame = Pick<Raster, 'width' | 'height'>;

export function levelFor({ width, height }: Frame, most: number): number {
  return Math.max(0, Math.ceil(Math.log((width * height) / most) / Math.log(4)));
}

/** The level of a picture at which its lines are looked for. */
export function strandLevel(frame: Frame): number {
  return levelFor(frame, MOST.strands);
}

const NEEDS: Record<Studied['of'], readonly FindingKind[]> = {
  strands: ['lines', 'creases', 'ink', 'wires', 'mesh'],
  specks: ['specks'],
  blemishes: ['specks'],
  foreign: ['lines', 'creases', 'ink'],
  losses: ['losses', 'specks', 'lines', 'creases', 'ink', 'wires', 'stains'],
  tones: ['stains', 'pulls'],
};

/** What has to be studied to find some kinds, lines apart from the rest; the longest first. */
export function studiesFor(frame: Frame, kinds: readonly FindingKind[]): Study[] {
  const base = strandLevel(frame);
  const wanted: { of: Studied['of']; level: number }[] = [
    ...Array.from({ length: LEVELS.specks }, (_, level) => ({ of: 'specks' as const, level })),
    ...Array.from({ length: LEVELS.blemishes }, (_, k) => ({
      of: 'blemishes' as const,
      // A compression leaves little of colour at the picture's own level.
      level: Math.max(1, levelFor(frame, MOST.blemishes)) + k,
    })),
    ...Array.from({ length: LEVELS.strands }, (_, k) => ({
      of: 'strands' as const,
      level: base + k,
    })),
    ...CREASE_LEVELS.map((k) => ({ of: 'foreign' as const, level: base + k })),
    { of: 'losses', level: levelFor(frame, MOST.losses) },
    { of: 'tones', level: levelFor(frame, MOST.tones) },
  ];
  const needed = wanted.filter(
    ({ of, level }) =>
      NEEDS[of].some((kind) => kinds.includes(kind)) &&
      (level === 0 || Math.min(frame.width, frame.height) >> level >= 24),
  );
  const studies = [true, false].flatMap((lines) => {
    const levels = new Map<number, Studied['of'][]>();
    for (const { of, level } of needed)
      if (isOfLines(of) === lines) levels.set(level, [...(levels.get(level) ?? []), of]);
    return [...levels].map(([level, of]): Study => ({ level, of }));
  });
  return studies.sort((a, b) => costOf(b) - costOf(a));
}

/** What studies take beside one another at the same level. */
const COST: Record<Studied['of'], number> = {
  strands: 3,
  foreign: 1,
  specks: 1,
  blemishes: 2,
  losses: 4,
  tones: 30,
};

function costOf({ of, level }: Study): number {
  return of.reduce((sum, what) => sum + COST[what], 0) / 4 ** level;
}

/** Whether a study tells of lines. */
export function isOfLines(of: Studied['of']): boolean {
  return of === 'strands' || of === 'foreign';
}

/** Does one study. */
export function study(halves: Halves, { of, level }: Study): Studied[] {
  return of.map((one) => studied(halves, level, one));
}

/** Bright strands in a print of one tone, in which what is foreign to it by its colour stands out by that too. */
function raisedStrands(layer: Layer, level: number): Strand[] | null {
  const raised = withForeign(layer)?.colours[3];
  if (!raised) return null;
  for (let p = 0; p < raised.values.length; p++) raised.values[p]! += layer.grey.values[p]!;
  return strandsAt(raised, level, 1);
}

function studied(halves: Halves, level: number, of: Studied['of']): Studied {
  const { picture } = halves;
  switch (of) {
    case 'strands': {
      const { grey } = readingOf(halves, level);
      return { of, strands: strandsAt(grey, level - strandLevel(picture)) };
    }
    case 'foreign': {
      const layer = layerOf(halves, level);
      return { of, strands: raisedStrands(layer, level - strandLevel(picture)) };
    }
    case 'specks': {
      const reading = readingOf(halves, level);
      return { of, specks: specksAt(reading, level, picture, { foreign: foreignAt(reading) }) };
    }
    case 'blemishes':
      return { of, level, blemishes: blemishesOf(layerOf(halves, level)) };
    case 'losses':
      return { of, level, losses: lossesOf(layerOf(halves, level)) };
    case 'tones': {
      const layer = layerOf(halves, level);
      const stains = [...stainsOf(layer), ...foldsOf(layer)];
      return { of, level, stains, pulls: pullsOf(layer) };
    }
  }
}
