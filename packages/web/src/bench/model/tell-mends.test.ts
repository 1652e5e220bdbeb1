import type { Method, Repair, RepairTell } from '@tersum/document';
import { plainFill, shiftDonor } from '@tersum/document';
import { findDonors } from '../../api/pictures.js';
import { mendFor } from './tell-mends.js';

jest.mock('../../api/pictures.js', () => ({ findDonors: jest.fn() }));
const offers = findDonors as jest.MockedFunction<typeof findDonors>;

const repair = (method: Method, more: Partial<Repair> = {}): Repair => ({
  id: crypto.randomUUID(),
  layerId: crypto.randomUUID(),
  position: 0,
  enabled: true,
  site: { kind: 'dab', at: [100, 100] },
  width: 30,
  softness: 0.2,
  flow: 1,
  strength: 1,
  method,
  reason: '',
  createdAt: '2026-11-01T00:00:00.000Z',
  ...more,
});
const tell = (kind: RepairTell['kind'], more: Partial<RepairTell> = {}): RepairTell => ({
  kind,
  value: 3,
  limit: 1,
  box: { x: 85, y: 85, width: 30, height: 30 },
  repair: crypto.randomUUID(),
  stands: false,
  ...more,
});
const clone = (): Method => ({ kind: 'clone', donor: shiftDonor(60, 0), other: null });
const better = (r: Repair, t: RepairTell) => mendFor('p', r, t)!.better();

test('a clone with a step of tone or a seam is grafted, from the same donor', async () => {
  for (const kind of ['tone', 'seam'] as const) {
    const next = await better(repair(clone()), tell(kind));
    expect(next!.method).toMatchObject({ kind: 'graft', donor: { dx: 60, dy: 0 } });
  }
});

test('a graft with a seam is softened, up to a limit, then weakened', async () => {
  const graft: Method = { kind: 'graft', donor: shiftDonor(60, 0), other: null };
  expect((await better(repair(graft), tell('seam')))!.softness).toBeCloseTo(0.45);
  expect((await better(repair(graft, { softness: 0.7 }), tell('seam')))!.softness).toBe(0.8);
  const soft = await better(repair(graft, { softness: 0.8 }), tell('seam'));
  expect(soft).toMatchObject({ softness: 0.8, strength: 0.8 });
});

test('what is seen twice gets another donor: neither the same one, nor what it is the twin of', async () => {
  const twin = { x: 145, y: 85, width: 30, height: 30 };
  offers.mockResolvedValue([
    { donor: shiftDonor(62, 3), misfit: 1 },
    { donor: shiftDonor(-80, 10), misfit: 2 },
  ]);
  const next = await better(repair(clone()), tell('repeat', { twin }));
  expect(next!.method).toMatchObject({ donor: { dx: -80, dy: 10 } });
  expect(offers.mock.lastCall![2]).toMatchObject({ away: true });
  offers.mockResolvedValue([{ donor: shiftDonor(62, 3), misfit: 1 }]);
  expect(await better(repair(clone()), tell('repeat', { twin }))).toBeNull();
});

test('a fill is searched anew with another seed; a piece has its tone matched first', async () => {
  const fill = repair(plainFill(crypto.randomUUID(), 7));
  const next = (await better(fill, tell('repeat')))!;
  expect(next.method).toMatchObject({ kind: 'fill', seed: 8 });
  expect(next.method.kind === 'fill' && fill.method.kind === 'fill' && next.method.search).not.toBe(
    fill.method.kind === 'fill' ? fill.method.search : '',
  );
  const piece: Method = {
    kind: 'piece',
    donor: shiftDonor(0, 0),
    skew: 0,
    corners: null,
    pins: [],
    reveal: [],
    hidden: false,
    matchTone: false,
  };
  expect((await better(repair(piece), tell('tone')))!.method).toMatchObject({ matchTone: true });
  const matched = await better(repair({ ...piece, matchTone: true }), tell('tone'));
  expect(matched!.softness).toBeCloseTo(0.45);
});

test('one bad spot of a sweep is filled once more by itself, a little wider at the rim, off what it repeats', async () => {
  const square = (x: number): [number, number][] => [
    [x, 40],
    [x + 8, 40],
    [x + 8, 48],
    [x, 48],
  ];
  const sweep = repair(plainFill(crypto.randomUUID(), 3), {
    site: {
      kind: 'parts',
      parts: [20, 120].map((x) => ({ shape: { kind: 'outline', points: square(x) }, width: 1 })),
    },
    position: 4,
  });
  const box = { x: 120, y: 40, width: 8, height: 8 };
  const mend = mendFor('p', sweep, tell('tone', { box }))!;
  expect(mend).toMatchObject({ label: 'Fill this spot', local: true });
  const spot = (await mend.better())!;
  expect(spot.id).not.toBe(sweep.id);
  expect(spot.position).toBeGreaterThan(sweep.position);
  if (spot.site.kind !== 'parts') throw new Error('a spot has parts');
  expect(spot.site.parts).toHaveLength(1);
  const shape = spot.site.parts[0]!.shape;
  if (shape.kind !== 'outline') throw new Error('a spot has outlines');
  // Each corner lies 2 px further from the middle, along the diagonal.
  expect(shape.points[0]![0]).toBeCloseTo(120 - Math.SQRT2);
  expect(shape.points[2]![1]).toBeCloseTo(48 + Math.SQRT2);

  const twin = { x: 60, y: 40, width: 9, height: 9 };
  const apart = (await mendFor('p', sweep, tell('repeat', { box, twin }))!.better())!;
  expect(apart.method).toMatchObject({
    seed: 4,
    areas: [{ allow: false, shape: { kind: 'rectangle', ...twin } }],
  });
  if (apart.site.kind === 'parts')
    expect(apart.site.parts[0]!.shape).toMatchObject({ points: square(120) });
});

test('damage left in a large fill is filled over by itself', async () => {
  const fill = repair(plainFill(crypto.randomUUID()), { width: 400 });
  const box = { x: 90, y: 95, width: 4, height: 6 };
  const spot = (await better(fill, tell('leftover', { box })))!;
  if (spot.site.kind !== 'parts') throw new Error('a spot has parts');
  const shape = spot.site.parts[0]!.shape;
  if (shape.kind !== 'outline') throw new Error('a spot has outlines');
  const xs = shape.points.map(([x]) => x);
  const ys = shape.points.map(([, y]) => y);
  expect(Math.min(...xs)).toBeLessThan(box.x - 1);
  expect(Math.max(...xs)).toBeGreaterThan(box.x + box.width);
  expect(Math.max(...xs) - Math.min(...xs)).toBeLessThan(box.width + 12);
  expect(Math.max(...ys)).toBeGreaterThan(box.y + box.height);
});

test('a broken line leans the next search on structure, a soft place on texture', async () => {
  const fill = repair(plainFill(crypto.randomUUID()));
  expect((await better(fill, tell('broken-line')))!.method).toMatchObject({ lean: 'structure' });
  expect((await better(fill, tell('softness')))!.method).toMatchObject({ lean: 'texture' });
});

test('where only the hand helps nothing is offered', () => {
  expect(mendFor('p', repair({ kind: 'push' }), tell('seam'))).toBeNull();
  expect(mendFor('p', repair({ kind: 'give back' }), tell('seam'))).toBeNull();
});

test('a fill that lacks grain is given some, by the same search; once it has it, it is filled anew', async () => {
  const method = plainFill(crypto.randomUUID());
  const filled = repair(method);
  const mend = mendFor('p', filled, tell('grain', { value: 0.6 }))!;
  expect(mend.label).toBe('Add grain');
  const grained = await mend.better();
  expect(grained).toEqual({ ...filled, method: { ...method, grain: 1 } });
  expect(mendFor('p', grained!, tell('grain', { value: 0.6 }))!.label).toBe('Fill anew');
  expect(mendFor('p', filled, tell('grain', { value: 2 }))!.label).toBe('Fill anew');
});
