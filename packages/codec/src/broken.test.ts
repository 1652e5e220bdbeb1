import { randomUUID } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Random, Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import { encode as encodeBmp } from 'bmp-ts';
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import { decode, readMetadata } from './decode.js';
import { encode } from './encode.js';
import { decodeOpenRaster, encodeOpenRaster } from './openraster.js';
import { UserProblem } from './problem.js';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'broken-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const [W, H] = [48, 36];

function scene(): Raster {
  const raster = createRaster(W, H, 3);
  const random = seededRandom(1);
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(60, 200);
  return raster;
}

const FORMATS = ['png', 'tiff', 'jpeg', 'webp', 'bmp'] as const;

/** A sound file with a profile and a density in it. */
async function soundFile(format: (typeof FORMATS)[number]): Promise<Buffer> {
  const raster = scene();
  if (format === 'bmp') {
    const data = Buffer.alloc(4 * W * H);
    for (let p = 0; p < W * H; p++)
      for (let c = 0; c < 3; c++) data[4 * p + 3 - c] = raster.data[3 * p + c]!;
    return Buffer.from(encodeBmp({ data, width: W, height: H, bitPP: 24 }).data);
  }
  const profile = await sharp({ create: { width: 2, height: 2, channels: 3, background: '#888' } })
    .withIccProfile('p3')
    .png()
    .toBuffer();
  const { icc } = await sharp(profile).metadata();
  return Buffer.from(await encode(raster, format, 90, { icc: icc ?? null, exif: null, ppi: 300 }));
}

/** Ways files are spoilt on their way: by a disk, by a line, by whoever wrote them. */
const SPOILT: readonly [string, (file: Buffer, random: Random) => Buffer][] = [
  [
    'a few wrong bytes',
    (file, random) => {
      const out = Buffer.from(file);
      for (let k = 0; k < 6; k++) out[random.between(0, out.length - 1)] = random.between(0, 255);
      return out;
    },
  ],
  [
    'wrong bytes in its head',
    (file, random) => {
      const out = Buffer.from(file);
      for (let k = 0; k < 3; k++)
        out[random.between(4, Math.min(64, out.length - 1))] = random.between(0, 255);
      return out;
    },
  ],
  ['an end too soon', (file, random) => file.subarray(0, random.between(8, file.length - 1))],
  [
    'a hole of zeros',
    (file, random) => {
      const out = Buffer.from(file);
      const from = random.between(8, out.length - 2);
      return out.fill(0, from, random.between(from, out.length));
    },
  ],
  [
    'a piece too much',
    (file, random) => {
      const at = random.between(8, file.length - 1);
      return Buffer.concat([file.subarray(0, at), file.subarray(0, at), file.subarray(at)]);
    },
  ],
];

/** What came of reading: the picture, or what the person is told. */
async function taken(path: string): Promise<Raster | string> {
  try {
    const { raster } = await decode(path);
    return raster;
  } catch (error) {
    if (!(error instanceof UserProblem)) throw error;
    return error.message;
  }
}

describe.each(FORMATS)('a %s file', (format) => {
  test.each(SPOILT)('with %s is read whole or refused in a sentence', async (_, spoil) => {
    const file = await soundFile(format);
    const random = seededRandom(11);
    let refused = 0;
    for (let k = 0; k < 24; k++) {
      // A name of its own: what was read from a path is remembered.
      const path = join(folder, `${randomUUID()}.${format}`);
      await writeFile(path, spoil(file, random));
      const came = await taken(path);
      if (typeof came === 'string') {
        refused++;
        expect(came).toMatch(/^[A-Z“].{15,}[.”]$/s);
      } else expect(came.data.length).toBe(came.width * came.height * came.channels);
      await readMetadata(path).catch((error: unknown) => expect(error).toBeInstanceOf(UserProblem));
    }
    if (/soon/.test(_)) expect(refused).toBeGreaterThan(0);
  });

  test('in order is taken', async () => {
    const path = join(folder, `sound.${format}`);
    await writeFile(path, await soundFile(format));
    expect(await taken(path)).toMatchObject({ width: W, height: H });
  });
});

describe('a layered file', () => {
  const sound = (): Promise<Uint8Array> => {
    const part = createRaster(10, 8, 4);
    part.data.fill(200);
    const layers = [
      { name: 'original', x: 0, y: 0, visible: true, opacity: 1, raster: scene() },
      { name: 'Specks', x: 5, y: 6, visible: true, opacity: 1, raster: part },
    ];
    const baggage = { icc: null, exif: null, ppi: 300 };
    return encodeOpenRaster({ width: W, height: H, layers }, scene(), baggage);
  };
  const refusedBecause = async (bytes: Uint8Array): Promise<string> => {
    try {
      await decodeOpenRaster(bytes);
      return 'taken';
    } catch (error) {
      if (!(error instanceof UserProblem)) throw error;
      return error.message;
    }
  };

  test.each(SPOILT)('with %s is read or refused in a sentence', async (_, spoil) => {
    const file = Buffer.from(await sound());
    const random = seededRandom(12);
    for (let k = 0; k < 24; k++) {
      const why = await refusedBecause(spoil(file, random));
      expect(why).toMatch(/^taken$|^[A-Z“].{15,}[.”]$/s);
    }
  });

  const stack = (inner: string, size = `w="${W}" h="${H}"`): string =>
    `<?xml version="1.0"?><image version="0.0.3" ${size}><stack>${inner}</stack></image>`;
  const zipped = (xml: string): Uint8Array =>
    zipSync({ mimetype: [strToU8('image/openraster'), { level: 0 }], 'stack.xml': strToU8(xml) });

  test.each([
    ['no stack', zipSync({ mimetype: strToU8('image/openraster') })],
    ['a stack that is no XML', zipped('not <xml')],
    ['layers it has not', zipped(stack('<layer name="a" src="data/none.png" x="0" y="0"/>'))],
    ['a size of nothing', zipped(stack('', 'w="0" h="0"'))],
    ['a size beyond all measure', zipped(stack('', 'w="9999999" h="9999999"'))],
    ['a layer from outside', zipped(stack('<layer name="a" src="../../etc/passwd"/>'))],
  ])('with %s is refused', async (_, bytes) => {
    expect(await refusedBecause(bytes)).toMatch(/^[A-Z“].{15,}[.”]$/s);
  });
});
