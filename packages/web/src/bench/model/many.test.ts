import type { Repair } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { split } from './many.js';

const chain = (points: [number, number][], shares: number[]): Repair => ({
  id: crypto.randomUUID(),
  layerId: crypto.randomUUID(),
  position: 0,
  enabled: true,
  site: { kind: 'chain', points, bends: points.slice(1).map(() => 0), shares },
  width: 12,
  softness: 0,
  flow: 1,
  strength: 1,
  method: plainFill(crypto.randomUUID()),
  reason: '',
  createdAt: '2026-11-01T00:00:00.000Z',
});

const sitesOf = (repair: Repair) =>
  split(repair)!.flatMap((edit) =>
    edit.entity === 'repair' && edit.after?.site.kind === 'chain' ? [edit.after.site] : [],
  );

test('a tapered chain that is split stays as wide as it was at each place', () => {
  const points: [number, number][] = [
    [0, 0],
    [40, 0],
    [80, 0],
  ];
  const halves = sitesOf(chain(points, [0.4, 0.7, 1]));
  expect(halves.map((s) => s.shares)).toEqual([
    [0.4, 0.7],
    [0.7, 1],
  ]);
});

test('one run is split in its middle, its width there between those of its ends', () => {
  const [one, other] = sitesOf(
    chain(
      [
        [0, 0],
        [40, 0],
      ],
      [0.5, 1],
    ),
  );
  expect(one!.shares).toEqual([0.5, 0.75]);
  expect(other!.shares).toEqual([0.75, 1]);
  expect(other!.points[0]).toEqual([20, 0]);
});
