import { firstState, seededRandom } from '../random/random.js';
import type { Channels, Depth } from '../raster/raster.js';
import { createRaster, whiteOf } from '../raster/raster.js';
import { alone } from '../task/crew.js';
import { usualDifference } from './confidence.js';
import type { Field } from './field.js';
import { fieldOf, matchByChance, matchFromCoarse } from './field.js';
import { ANYWHERE } from './farness.js';
import { mannerFor } from './manner.js';
import { improveMatches, measureMatches } from './match.js';
import { improveMatchesPlainly, measureMatchesPlainly, patchDifference } from './plain/match.js';
import { settlePlainly } from './plain/settle.js';
import { tellPlainly } from './plain/tell.js';
import { agreePlainly, votePlainly } from './plain/vote.js';
import { matchByChancePlainly, matchFromCoarsePlainly } from './plain/begin.js';
import { layQuartersPlainly } from './plain/lay.js';
import { pyramidOf } from './pyramid.js';
import { tellMap } from './tell.js';
import { agree, vote } from './vote.js';

const chance = { reach: 30, sheets: 0, rows: 0, farness: ANYWHERE };
const manner = { ...mannerFor(20), coarsestDepth: 3 };

function pyramid(width: number, height: number, seed: number, outside = false) {
  const random = seededRandom(seed);
  const raster = createRaster(width, height, 3);
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, 255);
  const hole = new Uint8Array(width * height);
  const banned = new Uint8Array(width * height);
  for (let y = 10; y < 22; y++) for (let x = 12; x < 30; x++) hole[y * width + x] = 1;
  for (let y = 30; y < 33; y++) for (let x = 2; x < 9; x++) banned[y * width + x] = 1;
  if (outside) banned.fill(64, (height - 12) * width);
  return { raster, ...pyramidOf({ raster, hole, banned }, 6, manner, alone) };
}

function field(width: number, height: number, seed: number): Field {
  const { work, ...made } = pyramid(width, height, seed);
  work.dice[0] = firstState(seed + 1);
  const field = fieldOf({ work, ...made }, 0);
  matchByChance(field, chance);
  return field;
}

/** The next number from a state. */
function seededRandomAt(state: number): number {
  let s = state;
  s ^= s << 13;
  s ^= s >>> 17;
  return (s ^ (s << 5)) >>> 0;
}

describe('samples laid down', () => {
  test.each<[Depth, Channels]>([
    ['u8', 1],
    ['u8', 4],
    ['u16', 3],
    ['f32', 2],
    ['f32', 4],
  ])('agree with their plain twin: %s, %i channels', (depth, channels) => {
    const random = seededRandom(channels);
    const raster = createRaster(49, 47, channels, depth);
    const white = whiteOf(raster.data);
    for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.unit() * white;
    const hole = Uint8Array.from({ length: 49 * 47 }, () => (random.unit() < 0.2 ? 1 : 0));
    const banned = new Uint8Array(hole.length);
    const { levels } = pyramidOf({ raster, hole, banned }, 2, manner, alone);
    const pixels = new Int16Array(levels[0]!.pixels.length);
    layQuartersPlainly(raster, hole, pixels);
    const colours = (_: number, i: number): boolean => i % 4 < 3;
    expect(levels[0]!.pixels.filter(colours)).toEqual(pixels.filter(colours));
    expect(pixels.some((v) => v > 900)).toBe(true);
  });
});

describe('matching', () => {
  test('first matches agree with their plain twins, by chance and from the coarse', () => {
    const { work, ...made } = pyramid(101, 97, 2);
    const all = { work, ...made };
    const random = seededRandom(8);
    work.dice[0] = firstState(8);
    const coarse = fieldOf(all, 1);
    const few = { reach: 5, sheets: 1, rows: 60 };
    matchByChance(coarse, few);
    const plain = { ...coarse, match: coarse.match.slice() };
    matchByChancePlainly(plain, random, few);
    expect(coarse.match).toEqual(plain.match);
    const fine = fieldOf(all, 0);
    matchFromCoarse(fine, coarse);
    const same = { ...fine, match: fine.match.slice() };
    matchFromCoarsePlainly(same, plain, random);
    expect(fine.match).toEqual(same.match);
    expect(random.next()).toBe(seededRandomAt(work.dice[0]!));
  });

  test.each([1, 2, 3])('kernel and plain twin agree to the last match, seed %d', (seed) => {
    const fast = field(57, 49, seed);
    const plain = field(57, 49, seed);
    const farness = { free: 9, rate: seed === 1 ? 0 : 2000 * seed };
    measureMatches(fast, farness);
    measureMatchesPlainly(plain, farness);
    expect(fast.distance).toEqual(plain.distance);
    for (let pass = 0; pass < 5; pass++) {
      const fresh = pass === 2;
      const sweep = { ...chance, farness, pass, seed: seed * 77, fresh, sheets: 1, rows: 8 };
      improveMatches(fast, sweep);
      improveMatchesPlainly(plain, sweep);
      expect(fast.match).toEqual(plain.match);
      expect(fast.distance).toEqual(plain.distance);
    }
  });

  test('votes of kernel and plain twin agree to the last value', () => {
    const fast = field(57, 49, 6);
    const plain = field(57, 49, 6);
    for (const made of [fast, plain]) measureMatches(made);
    for (const [sharpness, among] of [
      [0.5, 'half'],
      [0.25, 'half'],
      [0.08, 'all'],
    ] as const) {
      vote(fast, sharpness, among);
      votePlainly(plain, sharpness, among);
      expect(fast.level.pixels).toEqual(plain.level.pixels);
    }
  });

  test('single sources of kernel and plain twin agree', () => {
    const made = field(57, 49, 7);
    measureMatches(made);
    for (let pass = 0; pass < 4; pass++)
      improveMatches(made, { ...chance, pass, seed: 3, fresh: false });
    agree(made, 0.25, made.chosen);
    expect(Array.from(made.chosen)).toEqual(agreePlainly(made, 0.25));
    for (const p of made.chosen) expect(made.level.hole[p]).toBe(0);
  });

  test('the donor map agrees with its plain twin', () => {
    const made = field(57, 49, 5);
    measureMatches(made);
    for (let pass = 0; pass < 2; pass++)
      improveMatches(made, { ...chance, pass, seed: 3, fresh: false });
    measureMatches(made);
    made.distance.forEach((d, i) => (made.distance[i] = d * (1 + (i % 4) ** 2)));
    const box = { x: 12, y: 10, width: 18, height: 12 };
    const { rect, ...told } = tellMap(made, box, { x: 100, y: 200, width: 57, height: 49 });
    expect(rect).toEqual({ x: 112, y: 210, width: 18, height: 12 });
    expect(told).toEqual(tellPlainly(made, usualDifference(made), box));
    expect(new Set(told.confidence).size).toBeGreaterThan(2);
  });

  test.each([
    [10, 12],
    [0, 12],
    [10, 0],
    [37, 39],
  ])('labels of kernel and plain twin settle alike, hole at row %d, column %d', (top, left) => {
    const { raster } = pyramid(57, 49, 8);
    const [hole, banned] = [new Uint8Array(57 * 49), new Uint8Array(57 * 49)];
    for (let y = top; y < top + 12; y++) hole.fill(1, y * 57 + left, y * 57 + left + 18);
    banned.fill(1, 25 * 57 + 30, 25 * 57 + 50);
    const { work, ...made } = pyramidOf({ raster, hole, banned }, 6, manner, alone);
    const { level, holes } = fieldOf({ work, ...made }, 0);
    const random = seededRandom(5);
    const free = Array.from(hole.keys()).filter((p) => !hole[p] && !banned[p]);
    for (const p of holes) work.plane[p] = free[random.between(0, free.length - 1)]!;
    const plain = work.plane.slice();
    for (const backwards of [false, true, false]) {
      // Part of the holes at a time: the others' labels are read and stay.
      for (const range of [
        [0, 100],
        [100, holes.length],
      ] as const) {
        const backwardly = Number(backwards);
        const places = [level.pixels, level.hole, level.banned, holes, work.plane];
        const { scratch } = made.room;
        made.room.run(
          'settle',
          [...places.map((a) => a.byteOffset), 57, 49, backwardly, scratch.byteOffset],
          [range],
        );
        const changed = settlePlainly({ level, holes }, plain, backwards, range);
        expect(scratch[0]).toBe(changed ? 1 : 0);
      }
      expect(work.plane).toEqual(plain);
    }
    for (const p of holes) expect(hole[plain[p]!]! + banned[plain[p]!]!).toBe(0);
  });

  test('a patch differs from itself by nothing, and by the sum of squares from another', () => {
    const pixels = new Int16Array(20 * 20 * 4).fill(7);
    expect(patchDifference(pixels, 80, 105, 110, Infinity)).toBe(0);
    pixels[4 * 105] = 10;
    // One value differs by 3, and lies in both patches at different places: 9 + 9.
    expect(patchDifference(pixels, 80, 105, 106, Infinity)).toBe(18);
  });

  test('matches only ever get better', () => {
    const made = field(57, 49, 4);
    measureMatches(made);
    const before = made.distance.reduce((a, b) => a + b, 0);
    improveMatches(made, { ...chance, pass: 0, seed: 9, fresh: false });
    expect(made.distance.reduce((a, b) => a + b, 0)).toBeLessThan(before);
    made.match.forEach((p) => expect(made.source[p]).toBe(1));
  });
});
