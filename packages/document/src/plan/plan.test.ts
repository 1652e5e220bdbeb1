import { FIRST_HOUSE } from '../api/work.js';
import type { Job } from '../schema/job.js';
import { inOrder, planOf, priceOf } from './plan.js';

const HOUR = 3600;
const job = (id: string, due: string | null, hours: number, more: Partial<Job> = {}) => ({
  id,
  due,
  createdAt: `2026-01-01T00:00:0${id.length}Z`,
  state: 'new' as const,
  archived: false,
  work: { spent: 0, remaining: hours * HOUR },
  ...more,
});
const house = { ...FIRST_HOUSE, hours: 6 };
/** A Friday. */
const TODAY = '2026-11-27';

test('earliest due first: ten hours at six a day end on the second day, the weekend left out', () => {
  const { days, jobs } = planOf(
    [job('later', '2026-12-10', 4), job('first', '2026-11-30', 6)],
    house,
    TODAY,
  );
  expect(jobs).toEqual([
    { id: 'first', ends: '2026-11-27', late: false },
    { id: 'later', ends: '2026-11-30', late: false },
  ]);
  expect(days.slice(0, 3)).toEqual([
    { day: '2026-11-27', room: 6 * HOUR, taken: 6 * HOUR },
    { day: '2026-11-30', room: 6 * HOUR, taken: 4 * HOUR },
    { day: '2026-12-01', room: 6 * HOUR, taken: 0 },
  ]);
  expect(days).toHaveLength(10);
});

test('a job that cannot fit before it is due is late, and the ones after it are told as well', () => {
  const { jobs } = planOf(
    [job('a', '2026-11-28', 13), job('bb', '2026-11-30', 1), job('ccc', null, 2)],
    { ...house, weekends: true },
    TODAY,
  );
  expect(jobs).toEqual([
    { id: 'a', ends: '2026-11-29', late: true },
    { id: 'bb', ends: '2026-11-29', late: false },
    { id: 'ccc', ends: '2026-11-29', late: false },
  ]);
});

test('what is delivered or put away is not planned; work with no end in sight ends the plan', () => {
  expect(
    inOrder([
      job('a', null, 1, { state: 'delivered' }),
      job('b', null, 1, { archived: true }),
      job('c', null, 1),
    ]).map((j) => j.id),
  ).toEqual(['c']);
  expect(planOf([job('a', null, 1e6)], house, TODAY).days).toHaveLength(400);
});

test('a price is the time by the rate, in whole units', () => {
  expect(priceOf(5400, { rate: 60 })).toBe(90);
  expect(priceOf(100, { rate: 60 })).toBe(2);
  expect(priceOf(5400, { rate: null })).toBeNull();
});
