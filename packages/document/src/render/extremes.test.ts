import { frameOf } from '@tersum/core';
import type { Donor } from '../schema/donor.js';
import { shiftDonor } from '../schema/donor.js';
import { plainFill } from '../schema/fill.js';
import type { Method } from '../schema/method.js';
import { RepairSchema } from '../schema/repair.js';
import type { Site } from '../schema/site.js';
import { compose } from './patch.js';
import { testHost, testId, testPicture, testRecords, testRepair } from './test-picture.js';
import { walk } from './walk.js';

const [W, H] = [72, 56];
const original = testPicture(W, H, 'u8', 3);

/** Sites that a hand or another program may come to, all of them sound by their schema. */
const SITES: readonly [string, Site][] = [
  ['far outside', { kind: 'dab', at: [1e6, -1e6] }],
  ['hardly inside', { kind: 'dab', at: [-3.9, -3.9] }],
  ['one point', { kind: 'stroke', points: [[30, 20]] }],
  ['the same point over and over', { kind: 'stroke', points: Array(500).fill([30, 20]) }],
  [
    'across the world',
    {
      kind: 'stroke',
      points: [
        [-1e6, 20],
        [1e6, 21],
      ],
    },
  ],
  [
    'an outline without an inside',
    {
      kind: 'outline',
      points: [
        [10, 10],
        [30, 10],
        [50, 10],
      ],
    },
  ],
  [
    'an outline that crosses itself',
    {
      kind: 'outline',
      points: [
        [10, 10],
        [50, 40],
        [50, 10],
        [10, 40],
      ],
    },
  ],
  [
    'an outline round everything',
    {
      kind: 'outline',
      points: [
        [-1e6, -1e6],
        [1e6, -1e6],
        [1e6, 1e6],
        [-1e6, 1e6],
      ],
    },
  ],
  ['the whole picture', { kind: 'rectangle', x: 0, y: 0, width: W, height: H }],
  ['a rectangle of a continent', { kind: 'rectangle', x: -5, y: -5, width: 1e6, height: 1e6 }],
  [
    'a chain without bends',
    {
      kind: 'chain',
      points: [
        [10, 10],
        [60, 40],
        [60, 40],
      ],
      bends: [],
    },
  ],
  [
    'a chain bent beyond measure',
    {
      kind: 'chain',
      points: [
        [10, 10],
        [60, 40],
      ],
      bends: [1e6, 3],
      shares: [0],
    },
  ],
  [
    'many parts, some of them nowhere',
    {
      kind: 'parts',
      parts: Array.from({ length: 300 }, (_, k) => ({
        shape: { kind: 'dab', at: [(k * 37) % 300, (k * 61) % 90] },
        width: 1 + (k % 5),
      })),
    },
  ],
];

const odd = (more: Partial<Donor>): Donor => ({ ...shiftDonor(20, 6), ...more });
const piece: Method = {
  kind: 'piece',
  donor: odd({}),
  skew: 60,
  corners: [
    [0, 0],
    [-200, 0],
    [-200, -200],
    [0, 0],
  ],
  pins: [
    { from: [30, 20], to: [35, 22] },
    { from: [30, 20], to: [10, 50] },
    { from: [1e6, 1e6], to: [0, 0] },
  ],
  reveal: [{ show: true, points: [[30, 20]], width: 2000, softness: 1 }],
  hidden: true,
  matchTone: true,
};
const METHODS: readonly [string, Method][] = [
  ['clone', { kind: 'clone', donor: odd({}), other: null }],
  ['clone of itself', { kind: 'clone', donor: shiftDonor(0, 0), other: null }],
  ['clone from nowhere', { kind: 'clone', donor: shiftDonor(1e6, -1e6), other: null }],
  [
    'clone from both sides, turned',
    { kind: 'clone', donor: odd({ turn: 1e6, scale: 0.25 }), other: odd({ dx: -20, scale: 4 }) },
  ],
  ['graft', { kind: 'graft', donor: odd({ mirrorX: true }), other: null }],
  ['patch', { kind: 'patch', donor: odd({ dx: 0.5 }), other: null, as: 'graft', from: 'good' }],
  ['fill', plainFill(testId(3, 1))],
  ['piece', piece],
  ['push', { kind: 'push' }],
  ['give back', { kind: 'give back' }],
];

describe.each(METHODS)('%s', (_, method) => {
  test.each(SITES)('over %s gives pixels or a sentence', async (_name, site) => {
    for (const more of [
      { width: 8, softness: 0.3 },
      { width: 2000, softness: 1 },
    ]) {
      const repair = testRepair(1, site, method, more);
      RepairSchema.parse(repair);
      const { host } = testHost(original, new Map());
      const { rendered, failed } = await walk(
        testRecords([repair]),
        'original',
        frameOf(original),
        host,
      );
      for (const { message } of failed) expect(message).toMatch(/^[A-Z].{12,}\.$/);
      const patches = rendered.map((r) => r.patch);
      const out = compose(original, patches, frameOf(original));
      expect(out.data.length).toBe(original.data.length);
      for (const { rect } of patches) {
        expect(rect.x >= 0 && rect.y >= 0).toBe(true);
        expect(rect.x + rect.width <= W && rect.y + rect.height <= H).toBe(true);
      }
    }
  });
});

test.each<[string, unknown]>([
  ['a dab', { kind: 'dab', at: [1e300, 0] }],
  ['a stroke', { kind: 'stroke', points: [[0, 2e6]] }],
  ['a rectangle', { kind: 'rectangle', x: 0, y: 0, width: 1e9, height: 5 }],
  [
    'a bow',
    {
      kind: 'chain',
      points: [
        [0, 0],
        [9, 9],
      ],
      bends: [1e12],
    },
  ],
])('%s beyond all measure is no record', (_, site) => {
  const repair = { ...testRepair(1, SITES[0]![1], { kind: 'push' }), site };
  expect(RepairSchema.safeParse(repair).success).toBe(false);
});
