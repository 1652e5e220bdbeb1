import { createRaster } from '@tersum/core';
import type { Patch } from '../render/patch.js';
import { sealPatch } from '../render/patch.js';
import { shiftDonor } from '../schema/donor.js';
import { plainFill } from '../schema/fill.js';
import type { Repair } from '../schema/repair.js';
import type { Picture } from '../schema/job.js';
import type { Records } from '../schema/records.js';
import { reportOf, ReportSchema } from './report.js';

const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

const picture: Picture = {
  id: id(1),
  jobId: id(2),
  name: 'Quay.tif',
  original: 'b'.repeat(64),
  format: 'tiff',
  width: 400,
  height: 250,
  channels: 3,
  bits: 16,
  ppi: 508,
  profile: null,
  version: 3,
  addedAt: '2026-11-02T09:00:00.000Z',
};
const job = { title: 'Prints of the harbour office', client: 'Harbour office' };
const layers = [
  { id: id(10), name: 'Dust', visible: true, position: 1 },
  { id: id(11), name: 'Structure', visible: true, position: 2 },
];

function repair(n: number, more: Partial<Repair> = {}): Repair {
  return {
    id: id(100 + n),
    layerId: id(10),
    position: n,
    enabled: true,
    site: { kind: 'dab', at: [50, 50] },
    width: 8,
    softness: 0,
    flow: 1,
    strength: 1,
    method: plainFill(id(500 + n)),
    reason: `reason ${n}`,
    createdAt: '2026-11-02T09:00:00.000Z',
    ...more,
  };
}

/** A patch that wrote a block of px inside its rectangle. */
function patch(x: number, y: number, side: number): Patch {
  const rect = { x: x - 2, y: y - 2, width: side + 4, height: side + 4 };
  const mask = new Uint8Array(rect.width * rect.height);
  for (let v = 2; v < side + 2; v++) mask.fill(1, v * rect.width + 2, v * rect.width + side + 2);
  return sealPatch(rect, createRaster(rect.width, rect.height, 3, 'u16'), mask);
}

const recordsOf = (repairs: readonly Repair[], more: Partial<Records> = {}): Records => ({
  layers,
  repairs,
  preparations: [],
  tones: [],
  frames: [],
  ...more,
});
const made = new Date('2026-11-05T12:00:00Z');
const report = (
  repairs: readonly Repair[],
  patches: readonly Patch[],
  more: Partial<Records> = {},
) =>
  reportOf(
    job,
    picture,
    recordsOf(repairs, more),
    patches,
    repairs.map((r) => r.id),
    made,
  );

describe('a treatment report', () => {
  test('of an untouched picture says so, and is what its schema asks for', () => {
    const plain = report([], []);
    expect(ReportSchema.parse(plain)).toEqual(plain);
    expect(plain.statement).toBe('Nothing was altered in this picture.');
    expect(plain.untouched).toBe(1);
    expect(plain.layers).toEqual([]);
    expect(plain.picture).toMatchObject({ name: 'Quay.tif', bits: 16, original: 'b'.repeat(64) });
  });

  test('counts what each repair changed, in its size on paper and as a share of the picture', () => {
    const told = report([repair(1), repair(2)], [patch(40, 30, 20), patch(200, 100, 10)]);
    const [first, second] = told.layers[0]!.repairs;
    // 508 px an inch are 20 a millimetre.
    expect(first).toMatchObject({
      number: 1,
      sizePx: 20,
      sizeMm: 1,
      manner: 'cleaned',
      box: { x: 40, y: 30, width: 20, height: 20 },
    });
    expect(second!.sizeMm).toBeCloseTo(0.5, 6);
    expect(told.shares['cleaned']).toBeCloseTo(500 / 100_000, 9);
    expect(told.untouched).toBeCloseTo(1 - 500 / 100_000, 9);
  });

  test.each([
    ['cleaned', { width: 8 }],
    ['invented', { width: 90 }],
    ['cleaned', { method: { kind: 'clone', donor: shiftDonor(9, 0), other: null }, width: 6 }],
    ['rebuilt', { method: { kind: 'clone', donor: shiftDonor(9, 0), other: null }, width: 60 }],
    ['given back', { method: { kind: 'give back' } }],
  ] as const)('calls it %s', (manner, more) => {
    const told = report([repair(1, more as Partial<Repair>)], [patch(40, 30, 20)]);
    expect(told.layers[0]!.repairs[0]!.manner).toBe(manner);
  });

  test('leaves out what is switched off and layers that are hidden or empty', () => {
    const off = repair(1, { enabled: false });
    const hidden = repair(2, { layerId: id(11) });
    const told = reportOf(
      job,
      picture,
      recordsOf([off, hidden], { layers: [layers[0]!, { ...layers[1]!, visible: false }] }),
      [],
      [],
      made,
    );
    expect(told.layers).toEqual([]);
    expect(told.statement).toBe('Nothing was altered in this picture.');
  });

  test('names every manner of change in one sentence', () => {
    const told = report(
      [repair(1), repair(2, { width: 80 })],
      [patch(40, 30, 20), patch(200, 100, 40)],
      { preparations: [{ id: id(30), position: 1, grey: [0.5, 0.5, 0], blocks: null }] as never },
    );
    expect(told.statement).toMatch(
      /damage was cleaned .*, areas were filled with invented content and it was prepared as a whole/,
    );
    expect(told.prepared).toEqual(['grey made of 50 %, 50 %, 0 % of red, green and blue']);
  });

  test('without a scale there are no millimetres', () => {
    const unscaled = reportOf(
      job,
      { ...picture, ppi: null },
      recordsOf([repair(1)]),
      [patch(40, 30, 20)],
      [repair(1).id],
      made,
    );
    expect(unscaled.layers[0]!.repairs[0]).toMatchObject({ sizeMm: null, sizePx: 20 });
  });
});
