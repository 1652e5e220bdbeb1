import type { PictureRecords, Repair, View } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { askedFor } from './fills.js';
import { isAllowed } from './grounds.js';
import { touchUpsOf } from './touch-ups.js';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

function fill(n: number, at: [number, number], width = 30): Repair {
  return {
    id: id(n),
    layerId: id(900),
    position: n,
    enabled: true,
    site: { kind: 'dab', at },
    width,
    softness: 0,
    flow: 1,
    strength: 1,
    method: plainFill(id(500 + n)),
    reason: '',
    createdAt: '2026-11-02T09:00:00.000Z',
  };
}

function recordsOf(repairs: Repair[]): PictureRecords {
  return {
    picture: {
      id: id(1),
      jobId: id(2),
      name: 'Quay.png',
      original: 'a'.repeat(64),
      format: 'png',
      width: 300,
      height: 200,
      channels: 3,
      bits: 8,
      ppi: null,
      profile: null,
      version: 1,
      addedAt: '2026-11-02T09:00:00.000Z',
    },
    jobTitle: 'Quay',
    layers: [{ id: id(900), name: 'Repairs', visible: true, position: 0 }],
    repairs,
    preparations: [],
    tones: [],
    frames: [],
    undo: null,
    redo: null,
    savedAt: null,
  } as PictureRecords;
}

test('a fill asked for something else is searched anew, and keeps what was not asked', () => {
  const before = fill(1, [50, 50]);
  const after = askedFor(before, { mirror: true });
  expect(after.method).toMatchObject({ mirror: true, seed: 1, lean: 'balanced' });
  expect(after.method.kind === 'fill' && after.method.search).not.toBe(id(501));
  const clone: Repair = { ...before, method: { kind: 'push' } };
  expect(askedFor(clone, { mirror: true })).toBe(clone);
});

test('a ground may be copied until its own outline is forbidden', () => {
  const ground = {
    outline: [
      [0, 0],
      [40, 0],
      [40, 40],
    ] as [number, number][],
    area: 0.2,
    ring: 0.4,
    colour: [1, 2, 3] as [number, number, number],
  };
  const repair = fill(1, [50, 50]);
  expect(isAllowed(repair, ground)).toBe(true);
  const shape = { kind: 'outline' as const, points: ground.outline };
  const forbidden = askedFor(repair, { areas: [{ allow: false, shape, width: 1 }] });
  expect(isAllowed(forbidden, ground)).toBe(false);
  expect(
    isAllowed(forbidden, {
      ...ground,
      outline: [
        [9, 9],
        [40, 0],
        [40, 40],
      ],
    }),
  ).toBe(true);
});

test('unsure places are to be touched up until a later repair lies on them', () => {
  const place = { x: 50, y: 50, width: 12, confidence: 0.2 };
  const other = { x: 150, y: 90, width: 12, confidence: 0.3 };
  const view = { version: 1, unsure: { [id(1)]: [place, other] } } as unknown as View;
  const one = fill(1, [50, 50]);
  expect(touchUpsOf(recordsOf([one]), view)).toEqual([
    { repair: one, place },
    { repair: one, place: other },
  ]);
  const touched = recordsOf([one, fill(2, [52, 50])]);
  expect(touchUpsOf(touched, view).map((t) => t.place)).toEqual([other]);
  const earlier = recordsOf([{ ...fill(2, [52, 50]), position: 0 }, one]);
  expect(touchUpsOf(earlier, view)).toHaveLength(2);
  expect(touchUpsOf(recordsOf([one]), null)).toEqual([]);
});
