import { spawnSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import { encode as encodeBmp } from 'bmp-ts';
import fc from 'fast-check';
import sharp from 'sharp';
import { decode } from './decode.js';
import { encode } from './encode.js';
import { carrierTiff } from './carrier.js';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'codec-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function saved(name: string, bytes: Uint8Array): Promise<string> {
  const path = join(folder, name);
  await writeFile(path, bytes);
  return path;
}

function noise(
  width: number,
  height: number,
  channels: 1 | 3 | 4,
  depth: 'u8' | 'u16',
  seed = 1,
): Raster {
  const raster = createRaster(width, height, channels, depth);
  const random = seededRandom(seed);
  for (let i = 0; i < raster.data.length; i++)
    raster.data[i] = random.between(0, depth === 'u8' ? 255 : 65535);
  return raster;
}

const none = { icc: null, exif: null, ppi: null };

/** A profile that is not sRGB, so that any conversion would show: Display P3 as libvips ships it. */
async function otherProfile(): Promise<Buffer> {
  const file = await sharp({ create: { width: 4, height: 4, channels: 3, background: '#808080' } })
    .withIccProfile('p3')
    .png()
    .toBuffer();
  return (await sharp(file).metadata()).icc!;
}

/** Display P3 codes to sRGB codes by the published matrices (CSS Color 4, 10.2 and 17, sample code). */
function srgbOfP3(codes: readonly number[]): number[] {
  const [r, g, b] = codes.map((c) => {
    const v = c / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  const x = 0.4865709486482162 * r + 0.26566769316909306 * g + 0.1982172852343625 * b;
  const y = 0.2289745640697488 * r + 0.6917385218365064 * g + 0.079286914093745 * b;
  const z = 0.04511338185890264 * g + 1.043944368900976 * b;
  const linear = [
    3.2409699419045226 * x - 1.537383177570094 * y - 0.4986107602930034 * z,
    -0.9692436362808796 * x + 1.8759675015077202 * y + 0.04155505740717559 * z,
    0.05563007969699366 * x - 0.20397695888897652 * y + 1.0569715142428786 * z,
  ];
  return linear.map((v) =>
    Math.round(255 * (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)),
  );
}

describe('files in and out', () => {
  test.each(['png', 'tiff'] as const)(
    '%s keeps every sample at 8 and 16 bits, grey, RGB and with alpha',
    async (format) => {
      await fc.assert(
        fc.asyncProperty(
          fc.integer({ min: 1, max: 40 }),
          fc.integer({ min: 1, max: 40 }),
          fc.constantFrom(1, 3, 4),
          fc.constantFrom('u8', 'u16'),
          async (width, height, channels, depth) => {
            const raster = noise(width, height, channels, depth, width * 41 + height);
            const path = await saved(`trip.${format}`, await encode(raster, format, 90, none));
            const back = await decode(path);
            expect(back.bits).toBe(depth === 'u16' ? 16 : 8);
            expect(back.raster.channels).toBe(channels);
            expect(
              Buffer.compare(Buffer.from(back.raster.data.buffer), Buffer.from(raster.data.buffer)),
            ).toBe(0);
          },
        ),
        { numRuns: 24, seed: 5 },
      );
    },
  );

  test.each(['png', 'tiff', 'jpeg', 'webp'] as const)(
    '%s carries profile, density and EXIF',
    async (format) => {
      const icc = await otherProfile();
      const shot = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#456' } })
        .withExif({
          IFD0: { Artist: 'O. Brandreth', Make: 'Marrow' },
          IFD2: { ExposureTime: '1/60' },
        })
        .jpeg()
        .toBuffer();
      const { exif } = await sharp(shot).metadata();
      const raster = noise(24, 18, 3, 'u8');
      const file = await encode(raster, format, 95, { icc, exif: exif!, ppi: 600 });
      const meta = await sharp(file).metadata();
      expect(meta.icc?.equals(icc)).toBe(true);
      if (format !== 'webp') expect(Math.round(meta.density!)).toBe(600);
      expect(file.includes('O. Brandreth')).toBe(true);
      if (format !== 'tiff') expect(meta.exif).toBeDefined();
      if (format === 'png' || format === 'tiff') {
        const back = await decode(await saved(`meta.${format}`, file));
        expect(
          Buffer.compare(Buffer.from(back.raster.data.buffer), Buffer.from(raster.data.buffer)),
        ).toBe(0);
        expect(back.profile).toMatch(/P3/);
        expect(back.ppi).toBeCloseTo(600, 0);
      }
    },
  );

  test('EXIF orientation is applied, and not applied twice after export', async () => {
    const raster = noise(6, 4, 3, 'u8');
    const turned = await sharp(Buffer.from(raster.data), {
      raw: { width: 6, height: 4, channels: 3 },
    })
      .withExif({ IFD0: { Orientation: '6', Artist: 'Pell' } })
      .withMetadata({ orientation: 6 })
      .tiff({ compression: 'none' })
      .toBuffer();
    const first = await decode(await saved('turned.tif', turned));
    expect([first.raster.width, first.raster.height]).toEqual([4, 6]);
    // Orientation 6: the first row of what is shown is the first column of what is stored, bottom first.
    expect([...first.raster.data.slice(0, 3)]).toEqual([
      ...raster.data.slice(3 * 6 * 3, 3 * 6 * 3 + 3),
    ]);
    const { exif } = await sharp(await sharp(turned).keepExif().jpeg().toBuffer()).metadata();
    const again = await encode(first.raster, 'png', 90, { ...none, exif: exif ?? null });
    const second = await decode(await saved('again.png', again));
    expect([second.raster.width, second.raster.height]).toEqual([4, 6]);
  });

  test('reads BMP', async () => {
    const raster = noise(7, 5, 3, 'u8');
    const abgr = Buffer.alloc(7 * 5 * 4);
    for (let p = 0; p < 35; p++)
      for (let c = 0; c < 3; c++) abgr[4 * p + 3 - c] = raster.data[3 * p + c]!;
    const { data } = encodeBmp({ data: abgr, width: 7, height: 5, bitPP: 24 } as never);
    const back = await decode(await saved('a.bmp', data));
    expect(back.format).toBe('bmp');
    expect([...back.raster.data]).toEqual([...raster.data]);
  });

  test('the carrier is a TIFF that other readers take for what it is', async () => {
    const raster = noise(9, 7, 3, 'u16');
    const meta = await sharp(carrierTiff(raster, null)).metadata();
    expect(meta).toMatchObject({
      format: 'tiff',
      width: 9,
      height: 7,
      channels: 3,
      depth: 'ushort',
    });
  });
});

describe('files that cannot be used', () => {
  const refused = async (name: string, bytes: Uint8Array) =>
    decode(await saved(name, bytes)).then(
      () => 'taken',
      (error: Error) => error.message,
    );

  test('empty, unknown and lying ones say so', async () => {
    expect(await refused('empty.png', new Uint8Array())).toMatch(/empty/);
    expect(await refused('notes.jpg', Buffer.from('only words, no picture'))).toMatch(
      /not a picture Tersum can read/,
    );
    expect(
      await refused('lie.png', Buffer.from('\x89PNG\r\n\x1a\nnothing of the kind', 'latin1')),
    ).toMatch(/damaged/);
    expect(await refused('short.bmp', Buffer.from('BM\0\0'))).toMatch(/cut short/);
  });

  test.each(['png', 'tiff', 'jpeg', 'webp'] as const)('a truncated %s is named', async (format) => {
    const file = await encode(noise(200, 150, 3, 'u8'), format, 90, none);
    expect(await refused(`cut.${format}`, file.subarray(0, Math.floor(file.length * 0.4)))).toMatch(
      /cut short|damaged/,
    );
  });

  test('a small file that claims a huge picture is refused before it is decoded', async () => {
    const head = await encode(noise(4, 4, 1, 'u8'), 'png', 90, none);
    const bomb = Buffer.from(head);
    bomb.writeUInt32BE(60_000, 16);
    bomb.writeUInt32BE(60_000, 20);
    const { crc32 } = await import('node:zlib');
    bomb.writeUInt32BE(crc32(bomb.subarray(12, 29)), 29);
    expect(await refused('bomb.png', bomb)).toMatch(/60000 x 60000 pixels. Up to 200 megapixels/);
  });
});

test.each(['png', 'jpeg'] as const)(
  'colours of another profile are converted to sRGB on request: %s',
  async (format) => {
    const colours = [
      [120, 90, 60],
      [200, 190, 180],
      [60, 80, 110],
      [128, 128, 128],
    ];
    // Squares, so that a lossy format keeps their colours.
    const raster = createRaster(16 * colours.length, 16, 3);
    for (let p = 0; p < raster.width * raster.height; p++)
      raster.data.set(colours[Math.floor((p % raster.width) / 16)]!, 3 * p);
    const baggage = { ...none, icc: await otherProfile() };
    const path = await saved(`p3.${format}`, await encode(raster, format, 100, baggage, 'srgb'));
    const back = await decode(path);
    expect(back.profile).toMatch(/sRGB/);
    colours.forEach((colour, k) => {
      const at = 3 * (8 * raster.width + 16 * k + 8);
      srgbOfP3(colour).forEach((code, c) =>
        expect(Math.abs(back.raster.data[at + c]! - code)).toBeLessThanOrEqual(2),
      );
    });
    const kept = await decode(
      await saved(`kept.${format}`, await encode(raster, format, 100, baggage)),
    );
    expect(kept.profile).toMatch(/P3/i);
  },
);

/** Readers of other houses, where the machine has them. */
const has = (tool: string): boolean => spawnSync(tool, ['-ver']).error === undefined;
const withTool = (tool: string) => (has(tool) ? test : test.skip);

describe('written files as other readers see them', () => {
  const written = async (format: 'png' | 'tiff' | 'jpeg' | 'webp', depth: 'u8' | 'u16') => {
    const baggage = { icc: await otherProfile(), exif: null, ppi: 300, xmp: XMP };
    const file = await encode(noise(40, 30, 3, depth), format, 90, baggage);
    return saved(`read-${depth}.${format}`, file);
  };
  const XMP = '<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"></rdf:RDF>';

  withTool('tiffinfo').each(['u8', 'u16'] as const)(
    'tiffinfo has nothing to say of a TIFF, %s',
    async (depth) => {
      const { stdout, stderr } = spawnSync('tiffinfo', [await written('tiff', depth)], {
        encoding: 'utf8',
      });
      expect(stderr).toBe('');
      expect(stdout).toContain('Image Width: 40 Image Length: 30');
      expect(stdout).toContain('Resolution: 300, 300 pixels/inch');
      expect(stdout).toContain(`Bits/Sample: ${depth === 'u8' ? 8 : 16}`);
      expect(stdout).toContain('ICC Profile: <present>');
    },
  );

  withTool('exiftool').each(['png', 'tiff', 'jpeg', 'webp'] as const)(
    'exiftool has nothing to say of %s',
    async (format) => {
      const args = [
        '-json',
        '-warning',
        '-error',
        '-ProfileDescription',
        '-ImageWidth',
        '-BitsPerSample',
      ];
      const { stdout } = spawnSync('exiftool', [...args, await written(format, 'u8')], {
        encoding: 'utf8',
      });
      const [told] = JSON.parse(stdout) as Record<string, unknown>[];
      expect(told).not.toHaveProperty('Warning');
      expect(told).not.toHaveProperty('Error');
      expect(told!.ImageWidth).toBe(40);
      expect(String(told!.ProfileDescription)).toMatch(/P3/i);
    },
  );
});
