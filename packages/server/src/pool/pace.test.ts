import { pacedBy } from './pace.js';

test('news is told at once, then no sooner than its pace', () => {
  let now = 5;
  const isDue = pacedBy(100, () => now);
  const told = [0, 1, 99, 100, 150, 199, 200, 500, 501].filter((at) => {
    now = 5 + at;
    return isDue();
  });
  expect(told).toEqual([0, 100, 200, 500]);
});
