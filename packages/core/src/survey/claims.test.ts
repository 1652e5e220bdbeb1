import type { Candidate } from './candidate.js';
import { findingsFrom } from './survey.js';
import { Scene } from './test-scenes.js';

const [WIDTH, HEIGHT] = [200, 160];
const { picture } = new Scene(WIDTH, HEIGHT, 2);

/** A candidate of the pixels for which something holds. */
function candidate(
  kind: Candidate['kind'],
  holds: (x: number, y: number) => boolean,
  line: Candidate['line'] = null,
): Candidate {
  const pixels = Int32Array.from({ length: WIDTH * HEIGHT }, (_, p) => p).filter((p) =>
    holds(p % WIDTH, Math.floor(p / WIDTH)),
  );
  return { kind, pixels, odds: 3, polarity: 1, line };
}

const loss = candidate('losses', (_, y) => y > 120);

/** A crease 6 px broad from side to side whose height above the bottom is given at both. */
function crease(left: number, right: number): Candidate {
  const at = (x: number): number => left + ((right - left) * x) / (WIDTH - 1);
  const line = Array.from({ length: 50 }, (_, k): [number, number, number] => [
    4 * k,
    at(4 * k),
    6,
  ]);
  return candidate('creases', (x, y) => Math.abs(y - at(x)) <= 3, line);
}

const kindsOf = (all: readonly Candidate[]): string[] =>
  findingsFrom(picture, all).map(({ kind }) => kind);

test('what runs along a loss is the fringe of its tear, no crease', () => {
  expect(kindsOf([loss, crease(117, 117)])).toEqual(['losses']);
});

test('a crease that runs into a loss, or far from it, stays', () => {
  expect(kindsOf([loss, crease(30, 130)]).sort()).toEqual(['creases', 'losses']);
  expect(kindsOf([loss, crease(60, 60)]).sort()).toEqual(['creases', 'losses']);
});

test('writing that lies on a surer crease or wire is that; on a doubtful one it stays', () => {
  const ink = { ...candidate('ink', (_, y) => Math.abs(y - 40) <= 2), odds: 1 };
  const line = crease(40, 40);
  expect(kindsOf([ink, line])).toEqual(['creases']);
  expect(kindsOf([ink, { ...line, odds: 0.5 }])).toEqual(['ink']);
  expect(kindsOf([ink, crease(90, 90)]).sort()).toEqual(['creases', 'ink']);
});

/** Upright strokes along a height, every so many px. */
const letters = (y0: number, to: number): Candidate =>
  candidate('ink', (x, y) => Math.abs(y - y0) <= 8 && x < to && x % 10 < 3);

test('a crease that strings letters together is none; one that crosses a word is', () => {
  expect(kindsOf([letters(40, 150), crease(40, 40)])).toEqual(['ink']);
  expect(kindsOf([letters(40, 40), crease(40, 40)]).sort()).toEqual(['creases', 'ink']);
  expect(kindsOf([letters(40, 150), crease(90, 90)]).sort()).toEqual(['creases', 'ink']);
});

test('a crease alone stays where a loss would have made it a fringe', () => {
  expect(kindsOf([crease(117, 117)])).toEqual(['creases']);
});

test('what may be a wire or a hair is what it is likelier, a wire where there is little between them', () => {
  const along = (x: number, y: number): boolean => x > 30 && x < 170 && Math.abs(y - 40) <= 2;
  const of = (kind: 'wires' | 'lines', odds: number): Candidate => ({
    ...candidate(kind, along, [
      [31, 40, 4],
      [169, 40, 4],
    ]),
    odds,
  });
  expect(kindsOf([of('wires', 1), of('lines', 2.5)])).toEqual(['lines']);
  expect(kindsOf([of('wires', 1), of('lines', 1.5)])).toEqual(['wires']);
});

test('a single letter that is a surer hair is that; among others of its ink, or where it is the surer, it stays', () => {
  const ink = { ...candidate('ink', (_, y) => Math.abs(y - 40) <= 2), odds: 1, isAlone: true };
  const hair = { ...crease(40, 40), kind: 'lines' as const };
  expect(kindsOf([ink, hair])).toEqual(['lines']);
  expect(kindsOf([{ ...ink, isAlone: false }, hair])).toEqual(['ink']);
  expect(kindsOf([{ ...ink, odds: 4 }, hair])).toEqual(['ink']);
});
