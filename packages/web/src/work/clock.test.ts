import type { WorkTime } from '@tersum/document';
import { WorkClock } from './clock.js';

function clock() {
  let now = 1_000_000;
  const kept: WorkTime[] = [];
  const work = new WorkClock(
    'bench',
    (time) => kept.push(time),
    () => now,
  );
  return { work, kept, pass: (seconds: number) => void (now += seconds * 1000) };
}

test('a minute after the last sign of life the clock stands still', () => {
  const { work, kept, pass } = clock();
  pass(30);
  work.touch();
  pass(600);
  work.tick();
  // 30 s up to the touch and 60 s after it; the nine minutes that follow are a pause.
  expect(kept).toEqual([{ kind: 'bench', seconds: 90, count: 0 }]);
  pass(500);
  work.touch();
  pass(10);
  work.flush();
  expect(kept.at(-1)).toEqual({ kind: 'bench', seconds: 10, count: 0 });
});

test('time is kept in pieces of twenty seconds and more, and what is left at the end', () => {
  const { work, kept, pass } = clock();
  for (let k = 0; k < 45; k++) {
    pass(1);
    work.touch();
    work.tick();
  }
  work.flush();
  expect(kept.map((t) => t.seconds)).toEqual([20, 20, 5]);
});

test('findings take the time since the last ones that were mended', () => {
  const { work, kept, pass } = clock();
  for (let k = 0; k < 50; k++) {
    pass(1);
    work.touch();
  }
  work.mended('specks', 10);
  pass(6);
  work.mended('lines', 2);
  expect(kept).toEqual([
    { kind: 'specks', seconds: 50, count: 10 },
    { kind: 'lines', seconds: 6, count: 2 },
  ]);
  // Nothing was done in between: nothing is measured.
  work.mended('lines', 2);
  expect(kept).toHaveLength(2);
});

test('work counts towards the next break until there is a rest', () => {
  const { work, pass } = clock();
  const active = (minutes: number): void => {
    for (let k = 0; k < minutes * 6; k++) {
      pass(10);
      work.touch();
    }
  };
  active(25);
  expect(work.worked).toBeCloseTo(25);
  pass(90);
  work.touch();
  // A minute and a half is no rest.
  expect(work.worked).toBeCloseTo(26);
  pass(240);
  work.touch();
  expect(work.worked).toBe(0);
  active(3);
  expect(work.worked).toBeCloseTo(3);
  work.rested();
  expect(work.worked).toBe(0);
});
