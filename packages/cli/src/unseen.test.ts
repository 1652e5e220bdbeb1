import type { Finding } from '@tersum/core';
import { leastScore } from '@tersum/core';
import { sensitivityUnseen, sureUnseen } from './unseen.js';

const FRAME = { width: 1000, height: 640 };
const line = (score: number) => ({ kind: 'lines', score, tinted: false, extent: 200 }) as const;
const kept = (...scores: number[]): number[] =>
  sureUnseen(scores.map(line), 0.5, FRAME).map(({ score }) => score);

describe('what is mended unseen', () => {
  test('a doubtful line beside sure ones is one of them', () => {
    expect(kept(0.94, 0.83, 0.58, 0.52)).toEqual([0.94, 0.83, 0.58]);
    expect(kept(0.94, 0.79, 0.58)).toEqual([]);
  });

  test('a line by itself, or beside doubtful ones alone, is the picture’s', () => {
    expect(kept(0.91)).toEqual([]);
    expect(kept(0.75, 0.72, 0.61)).toEqual([]);
  });

  test('a very sure line needs no company', () => {
    expect(kept(0.97, 0.6)).toEqual([0.97]);
  });

  test('more sensitivity asks for less', () => {
    expect(sureUnseen([line(0.91)], 0.65, FRAME)).toHaveLength(1);
    expect(sensitivityUnseen(0.8).creases).toBeGreaterThan(sensitivityUnseen(0.5).creases);
    expect(sensitivityUnseen(0).creases).toBe(0);
  });

  test('losses have to be sure, writing as in a survey', () => {
    const least = sensitivityUnseen(0.5);
    expect(leastScore(least.losses)).toBeCloseTo(0.89, 2);
    expect(leastScore(least.ink)).toBeCloseTo(0.5, 6);
  });

  type Asked = Pick<Finding, 'kind' | 'score' | 'tinted' | 'extent'>;
  const speck = (score: number, extent: number, tinted = false): Asked => ({
    kind: 'specks',
    score,
    tinted,
    extent,
  });
  const scoresOf = (...all: Asked[]): number[] =>
    sureUnseen(all, 0.5, FRAME).map(({ score }) => score);

  test('a crease has to be sure, or another one very sure', () => {
    const crease = (score: number): Asked => ({
      kind: 'creases',
      score,
      tinted: false,
      extent: 600,
    });
    expect(scoresOf(crease(0.88))).toEqual([]);
    expect(scoresOf(crease(0.9))).toEqual([0.9]);
    expect(scoresOf(crease(0.94), crease(0.73))).toEqual([0.94]);
    expect(scoresOf(crease(0.96), crease(0.73))).toEqual([0.96, 0.73]);
  });

  test('patches of colour have to be sure, other kinds as the survey told them', () => {
    expect(scoresOf(speck(0.7, 5, true), speck(0.9, 5, true), speck(0.61, 5))).toEqual([0.9, 0.61]);
    expect(scoresOf({ kind: 'ink', score: 0.55, tinted: false, extent: 300 })).toEqual([0.55]);
  });

  test('dust is small for its picture: larger specks have to be very sure', () => {
    expect(scoresOf(speck(0.7, 15), speck(0.9, 17), speck(0.96, 17))).toEqual([0.7, 0.96]);
  });
});
