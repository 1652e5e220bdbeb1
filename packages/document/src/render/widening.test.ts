import type { Raster, Rect, Sides } from '@tersum/core';
import { frameOf, onCanvas } from '@tersum/core';
import { applyEdits, BadChange } from '../changes/records.js';
import { shiftDonor } from '../schema/donor.js';
import { plainFill } from '../schema/fill.js';
import type { Repair } from '../schema/repair.js';
import { canvasOfRecords, canvasSite, sidesSite } from './canvas.js';
import { finished } from './finish.js';
import type { Patch } from './patch.js';
import { compose } from './patch.js';
import { proofOf } from './proof.js';
import { testHost, testId, testPicture, testRecords, testRepair } from './test-picture.js';
import type { FoundMap } from './walk.js';
import { walk } from './walk.js';

const SIZE = { width: 72, height: 56 };
const original = testPicture(SIZE.width, SIZE.height, 'u8', 3);
const SIDES = { left: 14, right: 9, top: 0, bottom: 0 };
const CANVAS = { x: -14, y: 0, width: 95, height: 56 };

const fillSides = (n: number, sides: Sides, seed = 1): Repair =>
  testRepair(
    n,
    sidesSite(SIZE, sides),
    { ...plainFill(testId(3, n), seed), sides },
    { softness: 0, width: 1 },
  );
const stretch = (n: number, sides: Sides): Repair =>
  testRepair(n, canvasSite(SIZE, sides), {
    kind: 'stretch',
    sides,
    kept: [
      [
        [30, 10],
        [44, 10],
        [44, 50],
        [30, 50],
      ],
    ],
  });
const dab = (n: number, at: [number, number], dx: number): Repair =>
  testRepair(n, { kind: 'dab', at }, { kind: 'clone', donor: shiftDonor(dx, 0), other: null });

async function rendered(repairs: readonly Repair[]) {
  const found = new Map<string, FoundMap>();
  const { host } = testHost(original, found);
  const records = testRecords(repairs);
  const { rendered: all, failed } = await walk(records, 'original', frameOf(original), host);
  expect(failed).toEqual([]);
  const canvas = canvasOfRecords(SIZE, records);
  const patches = all.map((r) => r.patch);
  return { canvas, patches, ground: onCanvas(original, canvas), records, host };
}

function pixel({ data, channels, width }: Raster, canvas: Rect, x: number, y: number): number[] {
  const p = ((y - canvas.y) * width + x - canvas.x) * channels;
  return [...data.subarray(p, p + channels)];
}

test('a filled side takes its pixels from the picture; the picture stays where and what it was', async () => {
  const { canvas, patches, ground } = await rendered([fillSides(0, SIDES)]);
  expect(canvas).toEqual(CANVAS);
  const shown = compose(ground, patches, canvas);
  for (let y = 0; y < 56; y += 5)
    for (let x = 0; x < 72; x += 7)
      expect(pixel(shown, canvas, x, y)).toEqual(pixel(original, frameOf(original), x, y));
  // Nothing of the canvas is left empty.
  expect(patches[0]!.mask.reduce((n, m) => n + m, 0)).toBe(23 * 56);
});

test('repairs below a widening give the same bytes with and without it; those above reach the new sides', async () => {
  const below = dab(0, [3, 30], 20);
  const alone = await rendered([below]);
  const { patches, canvas, ground } = await rendered([
    below,
    fillSides(1, SIDES),
    dab(2, [-8, 20], 30),
  ]);
  expect(patches[0]!.digest).toBe(alone.patches[0]!.digest);
  expect(patches[2]!.rect.x).toBeLessThan(-8);
  const shown = compose(ground, patches, canvas);
  expect(pixel(shown, canvas, -8, 20)).toEqual(pixel(shown, canvas, 22, 20));
});

test('with the widening switched off, what lies on the new sides is left out', async () => {
  const off = { ...fillSides(1, SIDES), enabled: false };
  const { patches, canvas } = await rendered([off, dab(2, [-8, 20], 30)]);
  expect(canvas).toEqual({ x: 0, y: 0, ...SIZE });
  expect(patches).toHaveLength(0);
});

test('a stretched picture keeps what is protected in its place, a narrowed one too', async () => {
  for (const sides of [SIDES, { left: -6, right: 4, top: 0, bottom: 0 }]) {
    const { canvas, patches, ground } = await rendered([stretch(0, sides)]);
    expect(canvas.width).toBe(72 + sides.left + sides.right);
    const shown = compose(ground, patches, canvas);
    for (let y = 12; y < 48; y += 4)
      for (let x = 32; x < 43; x += 3)
        expect(pixel(shown, canvas, x, y)).toEqual(pixel(original, frameOf(original), x, y));
  }
});

test('above a stretch there is something to copy: only mended damage supplies nothing', async () => {
  const mend = testRepair(
    2,
    { kind: 'rectangle', x: 4, y: 20, width: 8, height: 8 },
    plainFill(testId(3, 2)),
    { softness: 0, layerId: testId(2, 0) },
  );
  const { patches } = await rendered([stretch(0, SIDES), mend]);
  expect(patches[1]!.mask.reduce((n, m) => n + m, 0)).toBe(64);
});

test('a picture is widened once', () => {
  const records = testRecords([fillSides(0, SIDES)]);
  const more = fillSides(1, SIDES);
  expect(() => applyEdits(records, [{ entity: 'repair', id: more.id, after: more }])).toThrow(
    BadChange,
  );
});

test('tone steps and the frame keep their places on a wider canvas', async () => {
  const { patches, ground, canvas } = await rendered([fillSides(0, SIDES)]);
  const frames = [
    {
      id: testId(5, 0),
      quad: [
        [-0.5, -0.5],
        [71.5, -0.5],
        [71.5, 55.5],
        [-0.5, 55.5],
      ] as const,
      width: 72,
      height: 56,
    },
  ];
  // The frame that is the original's gives the original, and a fall-off is still about its middle.
  const cut = finished(ground, patches, { tones: [], frames, size: SIZE });
  expect(cut.data).toEqual(original.data);
  const tones = [
    {
      id: testId(6, 0),
      position: 0,
      enabled: true,
      strength: 1,
      mask: null,
      act: { kind: 'flatten' as const, falloff: 0.4 },
    },
  ];
  const plain = finished(original, [], { tones, frames: [] });
  const wide = finished(ground, patches, { tones, frames: [], size: SIZE });
  for (let x = 0; x < 72; x += 9)
    expect(pixel(wide, canvas, x, 20)).toEqual(pixel(plain, frameOf(original), x, 20));
});

test('new sides are proved like any other repair, in the picture’s places', async () => {
  const { patches, ground } = await rendered([fillSides(0, SIDES)]);
  const flat: Patch = {
    ...patches[0]!,
    samples: { ...patches[0]!.samples, data: patches[0]!.samples.data.map(() => 128) },
  };
  const [tells] = proofOf(ground, [flat], [0]);
  expect(tells!.some((t) => t.kind === 'grain' || t.kind === 'softness')).toBe(true);
  expect(Math.min(...tells!.map((t) => t.box.x))).toBeGreaterThanOrEqual(-14);
});
