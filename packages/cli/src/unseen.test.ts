import type { Finding } from '@tersum/core';
import { sensitivityUnseen, sureUnseen } from './unseen.js';

const line = (score: number) => ({ kind: 'lines', score, tinted: false }) as const;
const kept = (...scores: number[]): number[] =>
  sureUnseen(scores.map(line), 0.5).map(({ score }) => score);

describe('what is mended unseen', () => {
  test('a doubtful line beside sure ones is one of them', () => {
    expect(kept(0.94, 0.83, 0.58)).toEqual([0.94, 0.83, 0.58]);
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
    expect(sureUnseen([line(0.91)], 0.65)).toHaveLength(1);
    expect(sensitivityUnseen(0.8).creases).toBeGreaterThan(sensitivityUnseen(0.5).creases);
    expect(sensitivityUnseen(0).creases).toBe(0);
  });

  test('patches of colour have to be sure, other kinds as the survey told them', () => {
    const speck = (score: number, tinted: boolean): Pick<Finding, 'kind' | 'score' | 'tinted'> => ({
      kind: 'specks',
      score,
      tinted,
    });
    const all = [speck(0.7, true), speck(0.9, true), speck(0.61, false)];
    expect(sureUnseen(all, 0.5).map(({ score }) => score)).toEqual([0.9, 0.61]);
  });
});
