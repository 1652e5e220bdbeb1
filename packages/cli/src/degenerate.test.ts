import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode, isUserProblem } from '@tersum/codec';
import type { Channels, Raster } from '@tersum/core';
import { createRaster, seededRandom, whiteOf } from '@tersum/core';
import { cloneCommand, graftCommand } from './copy.js';
import { fillCommand } from './fill.js';
import { findCommand } from './find.js';
import { levelCommand } from './level.js';
import { mendCommand } from './mend.js';
import { proofCommand } from './proof.js';
import { straightenCommand } from './straighten.js';
import { BadUsage } from './usage.js';
import { widenCommand } from './widen.js';

let folder: string;
const at = (name: string): string => join(folder, name);
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'degenerate-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

type Depth = 'u8' | 'u16';
const plain = (
  width: number,
  height: number,
  channels: Channels,
  share: number,
  depth: Depth,
): Raster => {
  const picture = createRaster(width, height, channels, depth);
  picture.data.fill(Math.round(share * whiteOf(picture.data)));
  return picture;
};
const noisy = (width: number, height: number, channels: Channels, depth: Depth): Raster => {
  const picture = createRaster(width, height, channels, depth);
  const random = seededRandom(2);
  for (let i = 0; i < picture.data.length; i++)
    picture.data[i] = random.between(0, whiteOf(picture.data));
  return picture;
};

/** Pictures that nobody would choose, but somebody will send. */
const PICTURES: readonly [string, Raster][] = [
  ['a single pixel', plain(1, 1, 3, 0.5, 'u8')],
  ['one row', noisy(60, 1, 3, 'u8')],
  ['one column', noisy(1, 60, 1, 'u8')],
  ['three by two', noisy(3, 2, 3, 'u16')],
  ['all white', plain(64, 48, 3, 1, 'u8')],
  ['all black', plain(64, 48, 1, 0, 'u16')],
  ['nothing but noise', noisy(64, 48, 3, 'u8')],
  ['with an alpha channel', noisy(64, 48, 4, 'u8')],
  ['see-through everywhere', plain(40, 30, 4, 0, 'u8')],
  ['grey with alpha', noisy(50, 40, 2, 'u8')],
];

/** Masks by name: 255 where a mend is wanted. */
const MASKS: readonly [string, (x: number, y: number, w: number, h: number) => boolean][] = [
  ['nothing', () => false],
  ['everything', () => true],
  ['the first pixel', (x, y) => x === 0 && y === 0],
  ['the right half', (x, _y, w) => x >= w / 2],
  ['every second pixel', (x, y) => (x + y) % 2 === 0],
];

/** Does it, or says in a sentence why not; anything else is a failing of its own. */
async function tried(act: () => Promise<void>): Promise<string | null> {
  try {
    await act();
    return null;
  } catch (error) {
    if (!(error instanceof BadUsage) && !isUserProblem(error)) throw error;
    expect((error as Error).message.length).toBeGreaterThan(10);
    return (error as Error).message;
  }
}

const none = { icc: null, exif: null, ppi: null };

describe.each(PICTURES)('%s', (_, picture) => {
  beforeAll(async () => writeFile(at('in.png'), await encode(picture, 'png', 90, none)));

  /** The result, which must be as large as the picture, or null where the command said why there is none. */
  const result = async (act: () => Promise<void>): Promise<Raster | null> => {
    await rm(at('out.png'), { force: true });
    if ((await tried(act)) !== null) return null;
    const { raster } = await decode(at('out.png'));
    return raster;
  };

  test('is surveyed, mended, levelled, straightened and proved, or told why not', async () => {
    const whole = [at('in.png'), '--out', at('out.png')];
    expect(await tried(() => findCommand([at('in.png'), '--json', at('f.json')]))).toBeNull();
    for (const policy of ['documentary', 'picture']) {
      const out = await result(() => mendCommand([...whole, '--policy', policy]));
      expect([out?.width, out?.height]).toEqual([picture.width, picture.height]);
    }
    await result(() => levelCommand([...whole, '--auto']));
    await result(() => straightenCommand(whole));
    await result(() =>
      widenCommand([
        ...whole,
        '--left',
        '3',
        '--right',
        '0',
        '--top',
        '2',
        '--bottom',
        '0',
        '--how',
        'fill',
      ]),
    );
    await tried(() => proofCommand([at('in.png'), at('in.png'), '--json', at('p.json')]));
  });

  test.each(MASKS)('with %s masked changes nothing beside the mask', async (_name, isMasked) => {
    const { width, height } = picture;
    const mask = createRaster(width, height, 1);
    for (let p = 0; p < width * height; p++)
      mask.data[p] = isMasked(p % width, Math.floor(p / width), width, height) ? 255 : 0;
    await writeFile(at('mask.png'), await encode(mask, 'png', 90, none));
    const asked = [at('in.png'), '--mask', at('mask.png'), '--out', at('out.png')];
    for (const act of [
      () => fillCommand(asked),
      () => graftCommand([...asked, '--donor', 'auto']),
      () => cloneCommand([...asked, '--donor', 'auto']),
      () => cloneCommand([...asked, '--donor', '1,0']),
    ]) {
      const out = await result(act);
      if (!out) continue;
      expect([out.width, out.height]).toEqual([width, height]);
      const before = (await decode(at('in.png'))).raster;
      expect(out.channels).toBe(before.channels);
      for (let p = 0; p < width * height; p++) {
        if (mask.data[p]) continue;
        for (let c = 0; c < out.channels; c++) {
          const i = p * out.channels + c;
          if (out.data[i] !== before.data[i]) throw new Error(`pixel ${p} was changed`);
        }
      }
    }
  });
});
