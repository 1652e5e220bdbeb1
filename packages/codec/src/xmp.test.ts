import type { Report } from '@tersum/document';
import { createRaster, seededRandom } from '@tersum/core';
import { XMLParser } from 'fast-xml-parser';
import { writeFile, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { decode } from './decode.js';
import { encode } from './encode.js';
import { xmpNote } from './xmp.js';

const report: Report = {
  format: 'tersum-treatment-report',
  version: 1,
  made: '2026-11-25T10:00:00.000Z',
  job: { title: 'Regatta', client: '' },
  picture: {
    name: 'Print <1> & "2"',
    original: 'ab'.repeat(32),
    width: 40,
    height: 30,
    bits: 16,
    ppi: 300,
  },
  layers: [
    {
      name: 'Dust & hairs',
      repairs: [1, 2].map((number) => ({
        number,
        method: 'Graft',
        reason: '',
        sizeMm: 1,
        sizePx: 12,
        parts: 1,
        strength: 1,
        manner: 'cleaned' as const,
        box: { x: 1, y: 1, width: 12, height: 9 },
      })),
    },
  ],
  shares: { cleaned: 0.1, rebuilt: 0, invented: 0, 'given back': 0 },
  untouched: 0.9,
  prepared: ['grey made of 100 %, 0 %, 0 % of red, green and blue'],
  tones: [{ name: 'Levels', strength: 1 }],
  framed: false,
  policy: 'documentary',
  proof: null,
  delivered: [],
  statement: 'This picture was altered.',
};

test('the note is well-formed and says what was done to which original', () => {
  const text = xmpNote(report);
  const read = new XMLParser({ ignoreAttributes: false }).parse(text) as {
    'x:xmpmeta': { 'rdf:RDF': { 'rdf:Description': Record<string, unknown> } };
  };
  const told = read['x:xmpmeta']['rdf:RDF']['rdf:Description'];
  expect(told['xmp:CreatorTool']).toBe('Tersum');
  expect(told['xmpMM:OriginalDocumentID']).toBe(`sha256:${'ab'.repeat(32)}`);
  const history = told['xmpMM:History'] as {
    'rdf:Seq': { 'rdf:li': { 'stEvt:parameters': string }[] };
  };
  expect(history['rdf:Seq']['rdf:li'].map((e) => e['stEvt:parameters'])).toEqual([
    'prepared: grey made of 100 %, 0 %, 0 % of red, green and blue',
    'Dust & hairs: 2 repairs (cleaned)',
    'tone: Levels',
  ]);
});

test.each(['png', 'tiff', 'jpeg', 'webp'] as const)(
  '%s carries the note, and the samples stay what they are',
  async (format) => {
    const folder = await mkdtemp(join(tmpdir(), 'xmp-'));
    try {
      const random = seededRandom(3);
      const picture = createRaster(40, 30, 3, format === 'png' || format === 'tiff' ? 'u16' : 'u8');
      for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(0, 255) * 200;
      const bare = { icc: null, exif: null, ppi: 300 };
      const plain = await encode(picture, format, 90, bare);
      const noted = await encode(picture, format, 90, { ...bare, xmp: xmpNote(report) });
      const { xmp } = await sharp(noted).metadata();
      expect(xmp?.toString('utf8')).toContain('Dust &amp; hairs: 2 repairs');
      await writeFile(join(folder, 'a'), plain);
      await writeFile(join(folder, 'b'), noted);
      const [one, two] = [await decode(join(folder, 'a')), await decode(join(folder, 'b'))];
      expect(two.raster.data).toEqual(one.raster.data);
      expect(two.ppi).toBe(one.ppi);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  },
);
