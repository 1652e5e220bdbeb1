import { seededRandom } from '../random/random.js';
import { shortList } from './short-list.js';

describe('a short list', () => {
  test('keeps the smallest misfits, best first, in whatever order they come', () => {
    const random = seededRandom(5);
    const all = Array.from({ length: 200 }, () => ({ misfit: random.unit() }));
    const list = shortList(12);
    for (const one of all) list.offer(one);
    const best = [...all].sort((a, b) => a.misfit - b.misfit).slice(0, 12);
    expect(list.offers).toEqual(best);
    expect(list.limit()).toBe(best[11]!.misfit);
  });

  test('takes anything until it is full', () => {
    const list = shortList(3);
    list.offer({ misfit: 9 });
    expect(list.limit()).toBe(Infinity);
  });

  test('of twins only the better one stays', () => {
    const list = shortList<{ misfit: number; x: number }>(3, (a, b) => Math.abs(a.x - b.x) < 2);
    for (const [x, misfit] of [
      [0, 5],
      [1, 4],
      [1, 6],
      [8, 7],
    ] as const)
      list.offer({ x, misfit });
    expect(list.offers).toEqual([
      { x: 1, misfit: 4 },
      { x: 8, misfit: 7 },
    ]);
  });
});
