import type { Job } from '@tersum/document';
import { filtered } from './filter.js';

const job = (title: string, more: Partial<Job> = {}): Job => ({
  id: crypto.randomUUID(),
  title,
  client: 'Harbour museum',
  due: null,
  notes: '',
  policy: 'documentary',
  state: 'new',
  createdAt: '2026-01-01T00:00:00Z',
  archived: false,
  work: { spent: 0, remaining: 0 },
  pictures: [],
  ...more,
});
const JOBS = [
  job('Regatta print'),
  job('Lane with wires', { client: 'Quay press', notes: 'poster' }),
  job('Carnival head', { state: 'delivered' }),
  job('Old chandlery', { archived: true, state: 'delivered' }),
];
const titles = (list: readonly Job[]): string[] => list.map((j) => j.title);

test('open jobs are those neither delivered nor put away', () => {
  expect(titles(filtered(JOBS, 'open', ''))).toEqual(['Regatta print', 'Lane with wires']);
  expect(titles(filtered(JOBS, 'delivered', ''))).toEqual(['Carnival head']);
  expect(titles(filtered(JOBS, 'archived', ''))).toEqual(['Old chandlery']);
  expect(filtered(JOBS, 'all', '')).toHaveLength(4);
});

test('every word must be somewhere: title, client, notes or state', () => {
  expect(titles(filtered(JOBS, 'all', 'QUAY poster'))).toEqual(['Lane with wires']);
  expect(titles(filtered(JOBS, 'all', 'museum delivered'))).toEqual([
    'Carnival head',
    'Old chandlery',
  ]);
  expect(filtered(JOBS, 'all', 'quay regatta')).toEqual([]);
});
