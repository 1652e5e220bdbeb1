import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, seededRandom, survey } from '@tersum/core';
import { findCommand } from './find.js';
import { mendCommand } from './mend.js';

const none = { icc: null, exif: null, ppi: 300 };
const [WIDTH, HEIGHT] = [260, 200];
let folder: string;
const at = (name: string): string => join(folder, name);
const specks: (readonly [number, number])[] = [];
/** 1 where a speck lies or its soft edge. */
const dust = new Uint8Array(WIDTH * HEIGHT);

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'survey-'));
  const random = seededRandom(4);
  const picture = createRaster(WIDTH, HEIGHT, 3);
  for (let y = 0, i = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      for (let c = 0; c < 3; c++, i++)
        picture.data[i] =
          110 + 25 * Math.sin(x / 40) + 20 * Math.cos(y / 33) + random.between(-2, 2);
  for (let k = 0; k < 24; k++) {
    const [cx, cy] = [random.between(8, WIDTH - 9), random.between(8, HEIGHT - 9)];
    specks.push([cx, cy]);
    for (let y = cy - 4; y <= cy + 4; y++)
      for (let x = cx - 4; x <= cx + 4; x++) {
        const d = Math.hypot(x - cx, y - cy);
        if (d < 4.2) dust[y * WIDTH + x] = 1;
        if (d < 2.2) picture.data.fill(245, 3 * (y * WIDTH + x), 3 * (y * WIDTH + x) + 3);
      }
  }
  await writeFile(at('in.png'), await encode(picture, 'png', 90, none));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Bright specks on grain, each a little higher than the one before. */
function ladder(): Raster {
  const random = seededRandom(11);
  const picture = createRaster(WIDTH, HEIGHT, 3);
  for (let i = 0; i < picture.data.length; i += 3)
    picture.data.fill(100 + random.between(-5, 5), i, i + 3);
  for (let k = 0; k < 108; k++) {
    const [cx, cy] = [16 + 20 * (k % 12), 14 + 20 * Math.floor(k / 12)];
    for (let y = cy - 3; y <= cy + 3; y++)
      for (let x = cx - 3; x <= cx + 3; x++) {
        const height = (8 + 1.2 * k) * Math.max(0, Math.min(1, 2.6 - Math.hypot(x - cx, y - cy)));
        for (let c = 0; c < 3; c++) picture.data[3 * (y * WIDTH + x) + c]! += height;
      }
  }
  return picture;
}

/** A dark sign with winding pale letters on restless ground, and the pixels of the letters. */
function sign(): { picture: Raster; letters: number[] } {
  const [width, height] = [520, 400];
  const random = seededRandom(12);
  const picture = createRaster(width, height, 3);
  const letters: number[] = [];
  const drawn = new Set<number>();
  for (const row of [155, 225])
    for (let k = 0; k < 5; k++)
      for (let t = 0; t <= 1; t += 0.005) {
        const [cx, cy] = [150 + 50 * k + 15 * Math.sin(7 * t), row + 24 * Math.cos(7 * t) - 10 * t];
        for (let y = Math.ceil(cy - 2.5); y <= cy + 2.5; y++)
          for (let x = Math.ceil(cx - 2.5); x <= cx + 2.5; x++)
            if (Math.hypot(x - cx, y - cy) <= 2.5) drawn.add(y * width + x);
      }
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const isOn = x >= 110 && x < 410 && y >= 110 && y < 290;
      const ground = 118 + 30 * Math.sin(x / 17) * Math.cos(y / 23);
      const tone = drawn.has(p) ? 236 : isOn ? 38 : ground;
      for (let c = 0; c < 3; c++) picture.data[3 * p + c] = tone + random.between(-3, 3);
      if (drawn.has(p)) letters.push(p);
    }
  return { picture, letters };
}

interface Report {
  readonly findings: {
    readonly kind: string;
    readonly bbox: [number, number, number, number];
    readonly outline: [number, number][][];
    readonly size_px: number;
    readonly size_mm: number;
    readonly contrast_de: number;
    readonly near_edge_px: number | null;
    readonly shows: boolean;
    readonly score: number;
    readonly advice: { readonly method: string; readonly reason: string };
  }[];
  readonly ms: Record<'load' | 'engine' | 'save', number>;
  readonly cpu_ms: number;
  readonly peak_mb: number;
}

describe('find', () => {
  test('tells what was found, where, how large and what to do; the mask is their union', async () => {
    await findCommand([
      at('in.png'),
      '--kinds',
      'specks',
      '--out-mask',
      at('m.png'),
      '--json',
      at('f.json'),
    ]);
    const report = JSON.parse(await readFile(at('f.json'), 'utf8')) as Report;
    expect(report.findings.length).toBeGreaterThan(18);
    const mask = (await decode(at('m.png'))).raster;
    const inMask = (x: number, y: number): boolean =>
      mask.data[(y * WIDTH + x) * mask.channels]! > 127;
    expect(specks.filter(([x, y]) => inMask(x, y)).length).toBeGreaterThan(18);
    for (const f of report.findings) {
      expect(f.kind).toBe('specks');
      const [x, y, w, h] = f.bbox;
      expect(
        specks.some(([cx, cy]) => cx >= x - 2 && cx <= x + w + 2 && cy >= y - 2 && cy <= y + h + 2),
      ).toBe(true);
      // 300 ppi: 25.4 mm are 300 px.
      expect(f.size_mm).toBeCloseTo((f.size_px * 25.4) / 300, 2);
      expect(f.score).toBeGreaterThan(0.5);
      expect(f.shows).toBe(true);
      expect(['clone', 'graft']).toContain(f.advice.method);
      expect(f.outline[0]!.length).toBeGreaterThan(2);
    }
    expect(Object.keys(report.ms)).toEqual(['load', 'engine', 'save']);
    expect(report.peak_mb).toBeGreaterThan(10);
  });

  test('bad usage is one clear line', async () => {
    await expect(findCommand([at('in.png')])).rejects.toThrow('--json is missing');
    await expect(findCommand([at('in.png'), '--kinds', 'dust', '--json', '-'])).rejects.toThrow(
      /there is no kind 'dust'; there are losses/,
    );
    await expect(findCommand([at('in.png'), '--sensitivity', '2', '--json', '-'])).rejects.toThrow(
      /--sensitivity takes a number from 0 to 1/,
    );
    await expect(
      mendCommand([at('in.png'), '--out', at('x.png'), '--policy', 'none']),
    ).rejects.toThrow(/--policy takes documentary or picture/);
  });
});

describe('mend', () => {
  test('takes the dust off and leaves everything else as it is', async () => {
    await mendCommand([at('in.png'), '--out', at('out.png'), '--json', at('m.json')]);
    const [before, after] = [
      (await decode(at('in.png'))).raster,
      (await decode(at('out.png'))).raster,
    ];
    let touched = 0;
    for (let p = 0; p < WIDTH * HEIGHT; p++)
      if (!dust[p] && before.data[3 * p] !== after.data[3 * p]) touched++;
    expect(touched).toBeLessThan(20);
    const gone = specks.filter(([x, y]) => after.data[3 * (y * WIDTH + x)]! < 190);
    expect(gone.length).toBeGreaterThan(18);
    const report = JSON.parse(await readFile(at('m.json'), 'utf8')) as {
      policy: string;
      mended: Record<string, number>;
    };
    expect(report.policy).toBe('documentary');
    expect(report.mended.specks).toBeGreaterThan(18);
  });

  test('leaves what is only just told, unless it is asked to be more sensitive', async () => {
    const picture = ladder();
    await writeFile(at('faint.png'), await encode(picture, 'png', 90, none));
    const mended = async (...more: string[]): Promise<number | undefined> => {
      const args = [at('faint.png'), '--out', at('left.png'), '--kinds', 'specks'];
      await mendCommand([...args, '--json', at('left.json'), ...more]);
      const { mended } = JSON.parse(await readFile(at('left.json'), 'utf8')) as {
        mended: Record<string, number>;
      };
      return mended.specks;
    };
    const found = survey(picture, { kinds: ['specks'] });
    // A sensitivity of 0.07 is 0.42 log odds.
    const sure = found.filter(({ score }) => Math.log(score / (1 - score)) > 0.42);
    expect(sure.length).toBeLessThan(found.length);
    expect(sure.length).toBeGreaterThan(5);
    expect(await mended()).toBe(sure.length);
    expect(await mended('--sensitivity', '0.57')).toBe(found.length);
  });

  test('leaves the letters of a sign, unless distractions may go as well', async () => {
    const { picture, letters } = sign();
    await writeFile(at('sign.png'), await encode(picture, 'png', 90, none));
    const changed = async (...more: string[]): Promise<number> => {
      const args = [at('sign.png'), '--out', at('sign-out.png'), '--kinds', 'ink'];
      await mendCommand([...args, ...more]);
      const after = (await decode(at('sign-out.png'))).raster;
      const gone = letters.filter((p) => after.data[3 * p]! < 120);
      return gone.length / letters.length;
    };
    expect(await changed()).toBe(0);
    expect(await changed('--policy', 'picture')).toBeGreaterThan(0.9);
    await findCommand([at('sign.png'), '--json', at('sign.json'), '--kinds', 'ink']);
    const { findings } = JSON.parse(await readFile(at('sign.json'), 'utf8')) as {
      findings: { on_board?: boolean }[];
    };
    expect(findings.length).toBeGreaterThan(0);
    expect(findings.every((f) => f.on_board)).toBe(true);
  });

  test('leaves patches of another colour that are likelier than not, unless they are sure', async () => {
    const picture = createRaster(WIDTH, HEIGHT, 3);
    for (let y = 0, i = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) {
        const [column, row] = [Math.floor(x / 32), Math.floor(y / 32)];
        const strength = Math.min(1, (column + 8 * row) / 40);
        const off = Math.hypot(x - 32 * column - 16, y - 32 * row - 16);
        const over = strength / (1 + Math.exp(1.4 * (off - 5)));
        const lit = 1 + 0.006 * Math.sin(12.9 * x + 78.2 * y);
        for (let c = 0; c < 3; c++, i++)
          picture.data[i] =
            [205, 158, 120][c]! * lit + over * ([140, 152, 162][c]! - [205, 158, 120][c]! * lit);
      }
    await writeFile(at('patches.png'), await encode(picture, 'png', 90, none));
    const args = [at('patches.png'), '--out', at('left.png'), '--kinds', 'specks'];
    await mendCommand([...args, '--json', at('left.json')]);
    const { mended } = JSON.parse(await readFile(at('left.json'), 'utf8')) as {
      mended: Record<string, number>;
    };
    const told = survey(picture, { kinds: ['specks'] }).filter(({ tinted }) => tinted);
    const sure = told.filter(({ score }) => Math.log(score / (1 - score)) > 1.5);
    expect(sure.length).toBeGreaterThan(2);
    expect(sure.length).toBeLessThan(told.length);
    expect(mended.specks).toBe(sure.length);
  });

  test('takes off a chip of another colour and the same tone, its rim too', async () => {
    const [clean, chipped] = [0, 1].map(() => createRaster(WIDTH, HEIGHT, 3));
    const [cx, cy] = [140, 90];
    for (let y = 0, i = 0; y < HEIGHT; y++)
      for (let x = 0; x < WIDTH; x++) {
        const lit = 1 - x / 900 + 0.006 * Math.sin(12.9 * x + 78.2 * y);
        const over = 1 / (1 + Math.exp(1.4 * (Math.hypot(x - cx, y - cy) - 6)));
        for (let c = 0; c < 3; c++, i++) {
          const paint = [205, 158, 120][c]! * lit;
          clean!.data[i] = paint;
          chipped!.data[i] = paint + over * ([140, 152, 162][c]! - paint);
        }
      }
    await writeFile(at('chip.png'), await encode(chipped!, 'png', 90, none));
    await mendCommand([at('chip.png'), '--out', at('whole.png'), '--kinds', 'specks']);
    const mended = (await decode(at('whole.png'))).raster;
    const off = (p: number, of = mended): number =>
      Math.max(...[0, 1, 2].map((c) => Math.abs(of.data[3 * p + c]! - clean!.data[3 * p + c]!)));
    let [before, after] = [0, 0];
    for (let p = 0; p < WIDTH * HEIGHT; p++) {
      before = Math.max(before, off(p, chipped!));
      after = Math.max(after, off(p));
    }
    expect(before).toBeGreaterThan(35);
    expect(after).toBeLessThan(13);
  });
});
