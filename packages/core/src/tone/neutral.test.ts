import { levelled, NO_LEVELS } from './levels.js';
import { neutralised } from './neutral.js';
import type { ToneActOf } from './step.js';

const plain: ToneActOf<'levels'> = {
  kind: 'levels',
  all: NO_LEVELS,
  channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS],
};
const through = (act: ToneActOf<'levels'>, colour: readonly number[]): number[] =>
  colour.map((v, c) => levelled(levelled(v, act.all), act.channels[c as 0]));

test('yellowed paper becomes neutral just short of white; white points worked by hand', () => {
  const paper = [0.864, 0.816, 0.672];
  const act = neutralised(plain, paper, 'white');
  // 0.864 / 0.96 = 0.9, 0.816 / 0.96 = 0.85, 0.672 / 0.96 = 0.7
  expect(act.channels.map((l) => l.white)).toEqual([
    expect.closeTo(0.9, 9),
    expect.closeTo(0.85, 9),
    expect.closeTo(0.7, 9),
  ]);
  for (const v of through(act, paper)) expect(v).toBeCloseTo(0.96, 9);
});

test('a black with a cast becomes a neutral black, and the paper stays where it was', () => {
  const white = neutralised(plain, [0.9, 0.85, 0.7], 'white');
  const act = neutralised(white, [0.14, 0.1, 0.08], 'black');
  for (const v of through(act, [0.14, 0.1, 0.08])) expect(v).toBeCloseTo(0.03, 9);
  const paper = through(act, [0.9, 0.85, 0.7]);
  expect(Math.max(...paper) - Math.min(...paper)).toBeLessThan(0.01);
});

test('a grey keeps its lightness and loses its cast, also under levels of all channels', () => {
  const all = { black: 0.05, white: 0.9, gamma: 1.2 };
  const act = neutralised({ ...plain, all }, [0.5, 0.45, 0.4], 'grey');
  const [r, g, b] = through(act, [0.5, 0.45, 0.4]) as [number, number, number];
  expect(r).toBeCloseTo(g, 9);
  expect(g).toBeCloseTo(b, 9);
  const before = [0.5, 0.45, 0.4].map((v) => levelled(v, all));
  expect(g).toBeCloseTo(before.reduce((sum, v) => sum + v, 0) / 3, 9);
});

test('what cannot be asked for stays within the limits of levels', () => {
  const act = neutralised(plain, [0.001, 0.5, 1], 'white');
  expect(act.channels[0].white).toBe(0.05);
  expect(act.channels[2].white).toBeCloseTo(1 / 0.96, 9);
});
