import type { Raster } from '@tersum/core';
import { digest, frameOf } from '@tersum/core';
import fc from 'fast-check';
import { applyEdits } from '../changes/records.js';
import type { Edit } from '../schema/change.js';
import type { Donor } from '../schema/donor.js';
import { shiftDonor } from '../schema/donor.js';
import { plainFill } from '../schema/fill.js';
import type { Method } from '../schema/method.js';
import type { Repair } from '../schema/repair.js';
import type { Records } from '../schema/records.js';
import { NO_RECORDS } from '../schema/records.js';
import type { Site } from '../schema/site.js';
import { activeRepairs } from './order.js';
import { compose } from './patch.js';
import { coverageIn, ringRect } from './site-area.js';
import { testHost, testId, testPicture, testRecords, testRepair } from './test-picture.js';
import type { FoundMap, WalkHost } from './walk.js';
import { walk } from './walk.js';

const W = 72;
const H = 56;
const LAYERS = 3;

async function pixels(original: Raster, records: Records, host: WalkHost): Promise<Raster> {
  const { rendered } = await walk(records, 'original', frameOf(original), host);
  return compose(
    original,
    rendered.map((r) => r.patch),
    frameOf(original),
  );
}

const point = fc.tuple(fc.integer({ min: -6, max: W + 6 }), fc.integer({ min: -6, max: H + 6 }));
const site: fc.Arbitrary<Site> = fc.oneof(
  fc.record({ kind: fc.constant('dab' as const), at: point }),
  fc.record({
    kind: fc.constant('stroke' as const),
    points: fc.array(point, { minLength: 1, maxLength: 4 }),
  }),
  fc.record({
    kind: fc.constant('rectangle' as const),
    x: fc.integer({ min: 0, max: W }),
    y: fc.integer({ min: 0, max: H }),
    width: fc.integer({ min: 1, max: 20 }),
    height: fc.integer({ min: 1, max: 20 }),
  }),
);
const shift = fc.integer({ min: -40, max: 40 });
const donor: fc.Arbitrary<Donor> = fc.record({
  dx: fc.oneof(
    shift,
    shift.map((v) => v / 4),
  ),
  dy: shift,
  turn: fc.constantFrom(0, 0, 90, -17.5),
  mirrorX: fc.boolean(),
  mirrorY: fc.constantFrom(false, false, true),
  scale: fc.constantFrom(1, 1, 0.6, 2),
  picture: fc.constant(null),
});
const copied = { donor, other: fc.oneof(fc.constant(null), fc.constant(null), donor) };
const corner = fc.tuple(fc.integer({ min: -3, max: 3 }), fc.integer({ min: -3, max: 3 }));
const method: fc.Arbitrary<Method> = fc.oneof(
  { weight: 3, arbitrary: fc.record({ kind: fc.constant('clone' as const), ...copied }) },
  { weight: 3, arbitrary: fc.record({ kind: fc.constant('graft' as const), ...copied }) },
  {
    weight: 1,
    arbitrary: fc.record({
      kind: fc.constant('patch' as const),
      as: fc.constantFrom('clone', 'graft'),
      from: fc.constantFrom('bad', 'good'),
      ...copied,
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      kind: fc.constant('piece' as const),
      donor,
      skew: fc.constantFrom(0, 12),
      corners: fc.oneof(fc.constant(null), fc.tuple(corner, corner, corner, corner)),
      pins: fc.array(fc.record({ from: point, to: point }), { maxLength: 2 }),
      reveal: fc.array(
        fc.record({
          show: fc.boolean(),
          points: fc.array(point, { minLength: 1, maxLength: 3 }),
          width: fc.constant(5),
          softness: fc.constant(0.5),
        }),
        { maxLength: 2 },
      ),
      hidden: fc.boolean(),
      matchTone: fc.boolean(),
    }),
  },
  { weight: 1, arbitrary: fc.constant({ kind: 'push' as const }) },
  { weight: 1, arbitrary: fc.constant({ kind: 'give back' as const }) },
  {
    weight: 1,
    arbitrary: fc
      .tuple(fc.integer({ min: 0, max: 5 }), fc.constantFrom(0, 0.5, 1))
      .map(([n, adapt]) => plainFill(testId(3, n), 1, adapt)),
  },
);
const repair: fc.Arbitrary<Repair> = fc
  .tuple(
    fc.integer({ min: 0, max: 7 }),
    site,
    method,
    fc.record({
      layerId: fc.integer({ min: 0, max: LAYERS - 1 }).map((n) => testId(2, n)),
      position: fc.integer({ min: 0, max: 9 }),
      enabled: fc.boolean(),
      width: fc.integer({ min: 2, max: 14 }),
      softness: fc.constantFrom(0, 0.4, 1),
      strength: fc.constantFrom(0, 0.35, 1),
    }),
  )
  .map(([n, s, m, more]) => {
    // A search belongs to one site: the maps of fills are told apart by what they fill.
    const searched: Method =
      m.kind === 'fill'
        ? {
            ...m,
            search: `${digest(new TextEncoder().encode(JSON.stringify([s, more.width])))}`.replace(
              /^(.{8})(.{4})(.{4})(.{4})(.{12}).*$/,
              '$1-$2-4$3-8$4-$5',
            ),
          }
        : m;
    return testRepair(n, s, searched, more);
  });
const edit: fc.Arbitrary<Edit> = fc.oneof(
  { weight: 6, arbitrary: repair.map((r): Edit => ({ entity: 'repair', id: r.id, after: r })) },
  {
    weight: 1,
    arbitrary: fc
      .integer({ min: 0, max: 7 })
      .map((n): Edit => ({ entity: 'repair', id: testId(1, n), after: null })),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(fc.integer({ min: 0, max: LAYERS - 1 }), fc.boolean(), fc.integer({ min: 0, max: 5 }))
      .map(([n, visible, position]): Edit => ({
        entity: 'layer',
        id: testId(2, n),
        after: { id: testId(2, n), name: `Layer ${n}`, visible, position },
      })),
  },
);
const start: Records = {
  ...NO_RECORDS,
  layers: Array.from({ length: LAYERS }, (_, n) => ({
    id: testId(2, n),
    name: `Layer ${n}`,
    visible: true,
    position: n,
  })),
};

describe('walk', () => {
  test.each(['u8', 'u16'] as const)(
    'incremental equals from scratch, byte for byte, for any sequence of changes, %s',
    async (depth) => {
      const original = testPicture(W, H, depth, depth === 'u8' ? 3 : 1);
      await fc.assert(
        fc.asyncProperty(fc.array(edit, { minLength: 2, maxLength: 9 }), async (edits) => {
          const found = new Map<string, FoundMap>();
          const going = testHost(original, found);
          let records = start;
          for (const e of edits) {
            records = applyEdits(records, [e]);
            const incremental = await pixels(original, records, going.host);
            const scratch = await pixels(original, records, testHost(original, found).host);
            expect(Buffer.compare(bytes(incremental), bytes(scratch))).toBe(0);
          }
        }),
        { numRuns: depth === 'u8' ? 20 : 8, seed: 20261102 },
      );
    },
    120_000,
  );

  test.each([
    ['u8', 3],
    ['u16', 3],
    ['u16', 1],
    ['u8', 4],
  ] as const)(
    'outside every site the picture is the original, %s with %d channels',
    async (depth, channels) => {
      const original = testPicture(W, H, depth, channels);
      await fc.assert(
        fc.asyncProperty(fc.array(repair, { minLength: 1, maxLength: 5 }), async (repairs) => {
          const unique = [...new Map(repairs.map((r) => [r.id, r])).values()];
          const records = { ...start, repairs: unique };
          const out = await pixels(original, records, testHost(original, new Map()).host);
          const touched = new Uint8Array(W * H);
          for (const r of activeRepairs(records)) {
            const ring = ringRect(r, frameOf(original));
            coverageIn(r, frameOf(original), ring).forEach((v, i) => {
              if (v > 0)
                touched[(ring.y + Math.floor(i / ring.width)) * W + ring.x + (i % ring.width)] = 1;
            });
          }
          for (let p = 0; p < W * H; p++)
            for (let c = 0; c < channels; c++) {
              const i = p * channels + c;
              if ((!touched[p] || c === 3) && out.data[i] !== original.data[i])
                throw new Error(`sample ${c} of pixel ${p} changed`);
            }
        }),
        { numRuns: 20, seed: 7 },
      );
    },
  );

  test('replays only what a change reaches, and stops where bytes come out as before', async () => {
    const original = testPicture(W, H, 'u8', 3);
    const clone = (dx: number): Method => ({
      kind: 'clone',
      donor: shiftDonor(dx, 0),
      other: null,
    });
    const first = testRepair(0, { kind: 'dab', at: [12, 12] }, clone(20));
    const reader = testRepair(1, { kind: 'dab', at: [40, 12] }, clone(-28));
    const far = testRepair(2, { kind: 'dab', at: [60, 45] }, clone(-10));
    const { host, count } = testHost(original, new Map());
    await pixels(original, testRecords([first, reader, far]), host);
    expect(count.replays).toBe(3);
    // The first and its reader are replayed; the far one reads neither.
    await pixels(original, testRecords([{ ...first, strength: 0.5 }, reader, far]), host);
    expect(count.replays).toBe(5);
    // Flow at strength 0 changes the record but no byte: nothing above is replayed for it.
    const idle = { ...first, strength: 0 };
    await pixels(original, testRecords([idle, reader, far]), host);
    const before = count.replays;
    await pixels(original, testRecords([{ ...idle, flow: 0.5 }, reader, far]), host);
    expect(count.replays).toBe(before + 1);
  });

  test('a fill is searched once, replayed from its map, and marked when what it copies from changes', async () => {
    const original = testPicture(W, H, 'u8', 3);
    const fill: Method = plainFill(testId(3, 1));
    const below = testRepair(
      0,
      { kind: 'rectangle', x: 4, y: 4, width: 64, height: 12 },
      { kind: 'clone', donor: shiftDonor(0, 30), other: null },
    );
    const filled = testRepair(1, { kind: 'dab', at: [36, 22] }, fill, { softness: 0 });
    const { host, count } = testHost(original, new Map());
    const frame = frameOf(original);
    const one = await walk(testRecords([below, filled]), 'original', frame, host);
    expect(one.rendered[1]!.donorChanged).toBe(false);
    const two = await walk(
      testRecords([{ ...below, strength: 0.4 }, filled]),
      'original',
      frame,
      host,
    );
    expect(count.searches).toBe(1);
    expect(two.rendered[1]!.donorChanged).toBe(true);
    const three = await walk(testRecords([below, filled]), 'original', frame, host);
    expect(three.rendered[1]!.patch.digest).toBe(one.rendered[1]!.patch.digest);
    expect(three.rendered[1]!.donorChanged).toBe(false);
  });

  test('a fill is computed while its map is being kept, and shown no sooner than it is', async () => {
    const original = testPicture(W, H, 'u8', 3);
    const filled = testRepair(0, { kind: 'dab', at: [36, 22] }, plainFill(testId(3, 1)));
    const { host, count } = testHost(original, new Map());
    let keep = (): void => undefined;
    const kept = new Promise<void>((resolve) => (keep = resolve));
    const slow: WalkHost = {
      ...host,
      keepFound: async (...found) => ({ ...(await host.keepFound(...found)), kept }),
    };
    let isShown = false;
    const walked = walk(testRecords([filled]), 'original', frameOf(original), slow).then((done) => {
      isShown = true;
      return done;
    });
    while (!count.replays) await new Promise(setImmediate);
    await new Promise(setImmediate);
    expect(isShown).toBe(false);
    keep();
    expect((await walked).rendered).toHaveLength(1);
  });

  test('a map that cannot be kept is told as what it is', async () => {
    const original = testPicture(W, H, 'u8', 3);
    const filled = testRepair(0, { kind: 'dab', at: [36, 22] }, plainFill(testId(3, 1)));
    const { host } = testHost(original, new Map());
    const full: WalkHost = {
      ...host,
      keepFound: async (...found) => ({
        ...(await host.keepFound(...found)),
        kept: Promise.reject(new Error('no space left')),
      }),
    };
    const walked = walk(testRecords([filled]), 'original', frameOf(original), full);
    await expect(walked).rejects.toThrow('no space left');
  });
});

function bytes(raster: Raster): Buffer {
  return Buffer.from(raster.data.buffer, raster.data.byteOffset, raster.data.byteLength);
}
