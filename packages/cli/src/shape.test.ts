import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, crop, seededRandom } from '@tersum/core';
import { joinCommand } from './join.js';
import { proofCommand } from './proof.js';
import { widenCommand } from './widen.js';

const none = { icc: null, exif: null, ppi: null };
const [width, height] = [340, 220];
let folder: string;
let scene: Raster;
const at = (name: string): string => join(folder, name);
const write = async (name: string, picture: Raster): Promise<void> =>
  writeFile(at(name), await encode(picture, 'png', 90, none));
const report = async (name: string): Promise<Record<string, unknown>> =>
  JSON.parse(await readFile(at(name), 'utf8')) as Record<string, unknown>;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'shape-'));
  const random = seededRandom(4);
  scene = createRaster(width, height, 3);
  scene.data.fill(120);
  for (let k = 0; k < 900; k++) {
    const [x0, y0] = [random.between(0, width), random.between(0, height)];
    const [w, h] = [random.between(4, 26), random.between(4, 26)];
    const colour = [0, 1, 2].map(() => random.between(40, 210));
    for (let y = y0; y < Math.min(height, y0 + h); y++)
      for (let x = x0; x < Math.min(width, x0 + w); x++)
        scene.data.set(colour, (y * width + x) * 3);
  }
  await write('left.png', crop(scene, { x: 0, y: 0, width: 220, height: 210 }));
  await write('right.png', crop(scene, { x: 120, y: 10, width: 220, height: 210 }));
  await write('scene.png', scene);
});
afterAll(() => rm(folder, { recursive: true, force: true }));

test('join lays two frames beside each other, and tells how', async () => {
  await joinCommand([
    at('left.png'),
    at('right.png'),
    '--out',
    at('joined.png'),
    '--json',
    at('j.json'),
  ]);
  const told = await report('j.json');
  const maps = told['H_to_frame0'] as number[][][];
  expect(Math.abs(maps[1]![0]![2]! - 120)).toBeLessThan(0.2);
  expect(Math.abs(maps[1]![1]![2]! - 10)).toBeLessThan(0.2);
  expect(told['unused']).toEqual([]);
  const { raster } = await decode(at('joined.png'));
  expect(Math.abs(raster.width - width)).toBeLessThan(3);
  expect(Math.abs(raster.height - height)).toBeLessThan(3);
  await expect(joinCommand([at('left.png'), '--out', at('x.png')])).rejects.toThrow(/two or more/);
});

test('widen puts the picture unchanged into the middle of a filled canvas', async () => {
  await widenCommand([
    at('left.png'),
    '--left',
    '24',
    '--bottom',
    '10',
    '--how',
    'fill',
    '--out',
    at('wide.png'),
    '--json',
    at('w.json'),
  ]);
  const { raster } = await decode(at('wide.png'));
  expect([raster.width, raster.height]).toEqual([244, 220]);
  const { raster: before } = await decode(at('left.png'));
  const inside = crop(raster, { x: 24, y: 0, width: 220, height: 210 });
  expect(Buffer.compare(inside.data as Uint8Array, before.data as Uint8Array)).toBe(0);
  expect((await report('w.json'))['invented']).toBeCloseTo(1 - (220 * 210) / (244 * 220), 9);
  await expect(
    widenCommand([at('left.png'), '--how', 'pull', '--out', at('x.png')]),
  ).rejects.toThrow(/fill or stretch/);
});

test('widen stretches round what is protected', async () => {
  const mask = createRaster(220, 210, 1);
  for (let y = 60; y < 150; y++) for (let x = 90; x < 130; x++) mask.data[y * 220 + x] = 255;
  await write('keep.png', mask);
  await widenCommand([
    at('left.png'),
    '--left',
    '30',
    '--right',
    '20',
    '--how',
    'stretch',
    '--protect',
    at('keep.png'),
    '--out',
    at('long.png'),
  ]);
  const { raster } = await decode(at('long.png'));
  const { raster: before } = await decode(at('left.png'));
  expect([raster.width, raster.height]).toEqual([270, 210]);
  const box = { x: 90, y: 60, width: 40, height: 90 };
  expect(crop(raster, { ...box, x: 120 }).data).toEqual(crop(before, box).data);

  // Below 0 background is taken away, by a stretch alone.
  const less = [at('left.png'), '--left=-24', '--protect', at('keep.png'), '--json', at('n.json')];
  await widenCommand([...less, '--how', 'stretch', '--out', at('narrow.png')]);
  const { raster: narrow } = await decode(at('narrow.png'));
  expect([narrow.width, narrow.height]).toEqual([196, 210]);
  expect(crop(narrow, { ...box, x: 66 }).data).toEqual(crop(before, box).data);
  expect((await report('n.json'))['broken_lines']).toBeGreaterThanOrEqual(0);
  await expect(widenCommand([...less, '--how', 'fill', '--out', at('x.png')])).rejects.toThrow(
    /left/,
  );
});

test('proof finds a step of tone where the pictures differ, and nothing in equal ones', async () => {
  const plain = createRaster(200, 160, 3);
  const random = seededRandom(3);
  for (let i = 0; i < plain.data.length; i++) plain.data[i] = 110 + random.between(-4, 4);
  const mended: Raster = { ...plain, data: plain.data.slice() };
  for (let y = 50; y < 110; y++)
    for (let x = 60; x < 130; x++)
      for (let c = 0; c < 3; c++) mended.data[(y * 200 + x) * 3 + c]! += 12;
  await write('plain.png', plain);
  await write('mended.png', mended);
  await proofCommand([at('plain.png'), at('mended.png'), '--threads', '1', '--json', at('p.json')]);
  const tells = (await report('p.json'))['tells'] as {
    kind: string;
    bbox: number[];
    value: number;
  }[];
  const tone = tells.find((t) => t.kind === 'tone');
  expect(tone!.bbox).toEqual([60, 50, 70, 60]);
  expect(tone!.value).toBeGreaterThan(3);
  await proofCommand([at('plain.png'), at('plain.png'), '--json', at('q.json')]);
  expect((await report('q.json'))['tells']).toEqual([]);
  await expect(
    proofCommand([at('plain.png'), at('scene.png'), '--json', at('q.json')]),
  ).rejects.toThrow(/one size/);
});
