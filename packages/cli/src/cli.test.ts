import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import { cloneCommand, graftCommand } from './copy.js';
import { fillCommand } from './fill.js';
import { BadUsage } from './usage.js';

const none = { icc: null, exif: null, ppi: null };
let folder: string;
const at = (name: string): string => join(folder, name);

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'cli-'));
  const random = seededRandom(8);
  const picture = createRaster(96, 80, 3);
  for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(90, 150);
  const mask = createRaster(96, 80, 1);
  for (let y = 30; y < 42; y++) for (let x = 40; x < 55; x++) mask.data[y * 96 + x] = 255;
  await writeFile(at('in.png'), await encode(picture, 'png', 90, none));
  await writeFile(at('mask.png'), await encode(mask, 'png', 90, none));
  await writeFile(at('small.png'), await encode(createRaster(9, 9, 1), 'png', 90, none));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const pixels = async (name: string): Promise<Raster> => (await decode(at(name))).raster;
const inside = (p: number): boolean => {
  const x = p % 96;
  const y = Math.floor(p / 96);
  return x >= 40 && x < 55 && y >= 30 && y < 42;
};

describe('command line', () => {
  test('clone copies by the named shift, exactly, and nothing else changes', async () => {
    await cloneCommand([
      at('in.png'),
      '--mask',
      at('mask.png'),
      '--donor=-20,10',
      '--out',
      at('clone.png'),
    ]);
    const before = await pixels('in.png');
    const after = await pixels('clone.png');
    for (let p = 0; p < 96 * 80; p++) {
      const from = inside(p) ? p + 10 * 96 - 20 : p;
      if (after.data[3 * p] !== before.data[3 * from]) throw new Error(`pixel ${p} is wrong`);
    }
  });

  test('graft with shift 0,0 leaves what was never pasted as it is, within its grain', async () => {
    await graftCommand([
      at('in.png'),
      '--mask',
      at('mask.png'),
      '--donor',
      '0,0',
      '--out',
      at('graft.png'),
    ]);
    const before = (await pixels('in.png')).data;
    const after = (await pixels('graft.png')).data;
    let sum = 0;
    for (let p = 0; p < 96 * 80; p++)
      for (let i = 3 * p; i < 3 * p + 3; i++) {
        if (!inside(p)) expect(after[i]).toBe(before[i]);
        else sum += Math.abs(after[i]! - before[i]!);
      }
    // The grain is 17 codes deep; the mean change stays far below it.
    expect(sum / (15 * 12 * 3)).toBeLessThan(1.5);
  });

  test('fill reports what it did, and gives the same bytes for the same seed', async () => {
    const run = (out: string) =>
      fillCommand([
        at('in.png'),
        '--mask',
        at('mask.png'),
        '--seed',
        '5',
        '--out',
        at(out),
        '--json',
        at('report.json'),
      ]);
    await run('a.png');
    await run('b.png');
    expect((await pixels('a.png')).data).toEqual((await pixels('b.png')).data);
    const report = JSON.parse(await readFile(at('report.json'), 'utf8'));
    expect(report).toMatchObject({ command: 'fill', seed: 5 });
    for (const part of ['load', 'engine', 'save']) expect(report.ms[part]).toBeGreaterThan(0);
    expect(report.cpu_ms).toBeGreaterThan(0);
    expect(report.peak_mb).toBeGreaterThan(0);
  });

  test('variants are written best first, differ, and keep everything outside the mask', async () => {
    const args = [at('in.png'), '--mask', at('mask.png'), '--out', at('v.png')];
    await fillCommand([...args, '--variants', '3', '--json', at('v.json')]);
    const report = JSON.parse(await readFile(at('v.json'), 'utf8')) as {
      written: { file: string; figures: { seam: number; texture: number; repeats: number } }[];
    };
    expect(report.written.map(({ file }) => file)).toEqual([1, 2, 3].map((k) => at(`v-${k}.png`)));
    const score = report.written.map(
      ({ figures: { seam, texture, repeats } }) =>
        Math.max(0, seam - 1) + Math.abs(1 - texture) + repeats,
    );
    expect(score).toEqual([...score].sort((a, b) => a - b));
    const before = await pixels('in.png');
    const made = await Promise.all([1, 2, 3].map((k) => pixels(`v-${k}.png`)));
    for (let p = 0; p < 96 * 80; p++)
      for (const one of made)
        if (!inside(p) && one.data[3 * p] !== before.data[3 * p])
          throw new Error(`pixel ${p} changed`);
    expect(made[0]!.data).not.toEqual(made[1]!.data);
  });

  test('any number of threads gives the same bytes, with every option on', async () => {
    const allowed = createRaster(96, 80, 1);
    for (let y = 0; y < 80; y++) for (let x = 0; x < 36; x++) allowed.data[y * 96 + x] = 255;
    await writeFile(at('left.png'), await encode(allowed, 'png', 90, none));
    const args = [at('in.png'), '--mask', at('mask.png'), '--donors', at('left.png')];
    for (const threads of ['1', '3'])
      await fillCommand([
        ...args,
        '--adapt',
        '0',
        '--mirror',
        '--scale',
        '90-110',
        '--threads',
        threads,
        '--out',
        at(`t${threads}.png`),
      ]);
    expect(await readFile(at('t1.png'))).toEqual(await readFile(at('t3.png')));
  });

  test('bad usage is one clear line', async () => {
    const out = ['--out', at('x.png')];
    await expect(fillCommand([at('in.png'), ...out])).rejects.toThrow('--mask is missing');
    await expect(fillCommand([at('none.png'), '--mask', at('mask.png'), ...out])).rejects.toThrow(
      /there is no file/,
    );
    await expect(fillCommand([at('in.png'), '--mask', at('small.png'), ...out])).rejects.toThrow(
      /9 x 9 px, the picture 96 x 80/,
    );
    await expect(
      fillCommand([at('in.png'), '--mask', at('mask.png'), '--adapt', '7', ...out]),
    ).rejects.toThrow(/--adapt takes a number from 0 to 1/);
    await expect(
      fillCommand([at('in.png'), '--mask', at('mask.png'), '--scale', '120', ...out]),
    ).rejects.toThrow(/--scale takes two numbers from 25 to 400/);
    await expect(
      fillCommand([at('in.png'), '--mask', at('mask.png'), '--threads', '0', ...out]),
    ).rejects.toThrow(/--threads takes a number from 1 to 64/);
    await expect(
      cloneCommand([at('in.png'), '--mask', at('mask.png'), '--donor', 'left', ...out]),
    ).rejects.toBeInstanceOf(BadUsage);
    await expect(
      cloneCommand([at('in.png'), '--mask', at('mask.png'), '--donor', '900,0', ...out]),
    ).rejects.toThrow(/outside the picture/);
  });
});
