import { firstState, seededRandom } from '../random/random.js';
import { createRaster } from '../raster/raster.js';
import { alone } from '../task/crew.js';
import { fieldOf } from './field.js';
import type { Level } from './level.js';
import { ANYWHERE } from './farness.js';
import { mannerFor } from './manner.js';
import { measureMatches } from './match.js';
import { pyramidOf } from './pyramid.js';
import { beginLevel } from './settle-level.js';
import { mirrorInwardsPlainly, peelInwardsPlainly } from './plain/start.js';
import { mirrorInwards, peelInwards } from './start.js';

/** A level whose values tell where they stand: column, row, column and row together, and none in the hole. */
function placed(width: number, height: number, isHole: (x: number, y: number) => boolean) {
  const hole = new Uint8Array(width * height);
  const pixels = new Int16Array(4 * width * height);
  const holes: number[] = [];
  for (let p = 0; p < hole.length; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    if (isHole(x, y)) {
      hole[p] = 1;
      holes.push(p);
    } else pixels.set([x, y, x + y, 7], 4 * p);
  }
  const level: Level = { width, height, pixels, hole, banned: new Uint8Array(hole.length) };
  const at = (x: number, y: number) => Array.from(pixels.subarray(4 * (y * width + x)).slice(0, 2));
  return { level, holes: Int32Array.from(holes), at };
}

test('what stands beside a hole is mirrored into it, ring by ring, at the pixel nearest', () => {
  const { level, holes, at } = placed(12, 9, (x) => x >= 8);
  mirrorInwardsPlainly(level, holes);
  for (let y = 0; y < 9; y++) for (let x = 8; x < 12; x++) expect(at(x, y)).toEqual([14 - x, y]);
});

test('where the mirrored would lie outside or must not be copied, the nearest stands in', () => {
  const { level, holes, at } = placed(6, 5, (x) => x >= 2);
  level.banned[2 * 6] = 1;
  mirrorInwardsPlainly(level, holes);
  expect(at(2, 0)).toEqual([0, 0]);
  // Mirrored at column 1 that would be the banned one, and left of the picture.
  expect(at(2, 2)).toEqual([1, 2]);
  expect(at(4, 0)).toEqual([1, 0]);
});

test('peeled inwards, each ring is the mean of what is known beside it', () => {
  const { level, holes, at } = placed(7, 3, (x) => x === 3);
  peelInwardsPlainly(level, holes);
  expect(at(3, 1)).toEqual([3, 1]);
  const open = placed(6, 3, (x) => x >= 4);
  peelInwardsPlainly(open.level, open.holes);
  expect(open.at(4, 1)).toEqual([3, 1]);
  // Rows 0, 1 and 1 of the ring before it, in whole numbers.
  expect(open.at(5, 1)).toEqual([3, 0]);
});

test('a hole without anything known stays as it is', () => {
  for (const begin of [peelInwardsPlainly, mirrorInwardsPlainly]) {
    const { level, holes } = placed(5, 5, () => true);
    begin(level, holes);
    expect(level.pixels.every((v) => v === 0)).toBe(true);
  }
});

test('holes of any shape begin as the plain twins begin them', () => {
  const random = seededRandom(12);
  for (const share of [0.2, 0.6, 0.97, 1]) {
    const raster = createRaster(53, 49, 3);
    for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, 255);
    const hole = Uint8Array.from({ length: 53 * 49 }, () => (random.unit() < share ? 1 : 0));
    const banned = Uint8Array.from(hole, () => (random.unit() < 0.1 ? 1 : 0));
    hole.fill(1, 20 * 53, 34 * 53);
    const manner = { ...mannerFor(20), coarsestDepth: 60 };
    const field = fieldOf(pyramidOf({ raster, hole, banned }, 2, manner, alone), 0);
    const level = { ...field.level, pixels: field.level.pixels.slice() };
    for (const [begin, plainly] of [
      [peelInwards, peelInwardsPlainly],
      [mirrorInwards, mirrorInwardsPlainly],
    ] as const) {
      begin(field);
      plainly(level, field.holes);
      expect(field.level.pixels).toEqual(level.pixels);
      expect(field.level.hole).toEqual(hole);
    }
  }
});

/** What a torn-off side differs from its sources by in the mean after so many beginnings. */
function differenceAfter(
  starts: 1 | 2,
  seed: number,
  check: (share: number) => void = () => undefined,
  show: () => void = () => undefined,
): number {
  const [width, height] = [90, 70];
  const raster = createRaster(width, height, 3);
  const random = seededRandom(seed);
  for (let p = 0; p < width * height; p++) {
    const [x, y] = [p % width, Math.floor(p / width)];
    const tone = (y < 30 ? 190 : 70) + (x % 9 < 4 ? 30 : 0) + random.between(-12, 12);
    raster.data.fill(tone, 3 * p, 3 * p + 3);
  }
  const hole = Uint8Array.from({ length: width * height }, (_, p) => (p % width >= 74 ? 1 : 0));
  const manner = { ...mannerFor(40), starts, rounds: { first: 8, least: 4, most: 8 } };
  const banned = new Uint8Array(hole.length);
  const pyramid = pyramidOf({ raster, hole, banned }, 6, manner, alone);
  const field = fieldOf(pyramid, 0);
  const work = {
    field,
    manner,
    chance: { reach: 60, sheets: 0, rows: 0 },
    farness: ANYWHERE,
    rounds: 8,
    isFinest: false,
    seed,
    pull: null,
    check,
    show,
  };
  pyramid.work.dice[0] = firstState(seed);
  beginLevel(work);
  measureMatches(field);
  return field.distance.reduce((sum, d) => sum + d, 0) / field.distance.length;
}

test('of two beginnings the one that agrees better is gone on with', () => {
  const seeds = [1, 2, 3, 4, 5, 6];
  const [one, two] = ([1, 2] as const).map((starts) =>
    seeds.map((s) => differenceAfter(starts, s)),
  );
  // The first is the same; never worse, and better where the second was.
  two!.forEach((d, k) => expect(d).toBeLessThanOrEqual(one![k]!));
  expect(two!.some((d, k) => d < one![k]!)).toBe(true);
});

test('what is told to be done never becomes less', () => {
  const told: number[] = [];
  differenceAfter(2, 1, (share) => told.push(share));
  expect(told).toHaveLength(16);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(Math.max(...told)).toBeLessThan(1);
});

test('the first of two beginnings is shown while the other is tried; a single one is not', () => {
  let told = 0;
  const shownAfter: number[] = [];
  for (const starts of [1, 2] as const) {
    told = 0;
    differenceAfter(
      starts,
      1,
      () => told++,
      () => shownAfter.push(told),
    );
  }
  expect(shownAfter).toEqual([8]);
});
