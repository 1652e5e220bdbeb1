import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import { createRaster, seededRandom } from '@tersum/core';
import type { Bundle, Repair, Tone } from '@tersum/document';
import { BUNDLE, plainFill, shiftDonor } from '@tersum/document';
import { strToU8, zipSync } from 'fflate';
import { renderCommand } from './render.js';
import { BadUsage } from './usage.js';

const [W, H] = [80, 60];
const id = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let folder: string;
let original: Uint8Array;
let hash: string;
const at = (name: string): string => join(folder, name);

const picture = createRaster(W, H, 3);
const random = seededRandom(3);
for (let i = 0; i < picture.data.length; i++) picture.data[i] = random.between(40, 210);

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'render-'));
  original = await encode(picture, 'png', 90, { icc: null, exif: null, ppi: 300 });
  hash = createHash('sha256').update(original).digest('hex');
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const clone: Repair = {
  id: id(1),
  layerId: id(9),
  position: 1,
  enabled: true,
  site: { kind: 'rectangle', x: 20, y: 10, width: 12, height: 9 },
  width: 1,
  softness: 0,
  flow: 1,
  strength: 1,
  method: { kind: 'clone', donor: shiftDonor(30, 20), other: null },
  reason: '',
  createdAt: '2026-11-02T09:00:00.000Z',
};

function bundleOf(more: Partial<Bundle> = {}): Bundle {
  return {
    format: 'tersum-job',
    version: 1,
    picture: {
      id: id(2),
      jobId: id(3),
      name: 'Quay.png',
      original: hash,
      format: 'png',
      width: W,
      height: H,
      channels: 3,
      bits: 8,
      ppi: 300,
      profile: null,
      version: 1,
      addedAt: '2026-11-02T09:00:00.000Z',
    },
    layers: [{ id: id(9), name: 'Repairs', visible: true, position: 0 }],
    repairs: [clone],
    tones: [],
    frames: [],
    preparations: [],
    searches: {},
    elsewhere: {},
    elsewherePrepared: {},
    ...more,
  };
}

/** A zip of a job and its files. */
async function zipped(
  job: unknown,
  files: Record<string, Uint8Array> = { [BUNDLE.original(hash)]: original },
): Promise<string> {
  const text = typeof job === 'string' ? job : JSON.stringify(job);
  await writeFile(at('job.zip'), zipSync({ [BUNDLE.job]: strToU8(text), ...files }));
  return at('job.zip');
}

const rendered = async (job: Bundle) => {
  await renderCommand([await zipped(job), '--out', at('out.png'), '--json', at('out.json')]);
  return (await decode(at('out.png'))).raster;
};

test('a job is rendered to the samples its records say', async () => {
  const out = await rendered(bundleOf());
  for (let p = 0; p < W * H; p++) {
    const [x, y] = [p % W, Math.floor(p / W)];
    const inside = x >= 20 && x < 32 && y >= 10 && y < 19;
    const from = inside ? (y + 20) * W + x + 30 : p;
    expect(out.data[3 * p]).toBe(picture.data[3 * from]);
  }
  const report = JSON.parse(await readFile(at('out.json'), 'utf8'));
  expect(report).toMatchObject({ command: 'render', repairs: 1, failed: 0 });
});

test('tone steps are done, layers that are hidden are not', async () => {
  const grey: Tone = {
    id: id(5),
    position: 1,
    enabled: true,
    strength: 1,
    mask: null,
    act: { kind: 'saturation', amount: -1 },
  };
  const hidden = { id: id(9), name: 'Repairs', visible: false, position: 0 };
  const out = await rendered(bundleOf({ tones: [grey], layers: [hidden] }));
  for (let p = 0; p < W * H; p++) {
    const [r, g, b] = picture.data.subarray(3 * p, 3 * p + 3);
    const luma = 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
    expect(Math.abs(out.data[3 * p]! - luma)).toBeLessThanOrEqual(1);
    expect(out.data[3 * p]).toBe(out.data[3 * p + 1]);
  }
});

test('a fill without its donor map is not searched anew: the job says it is not whole', async () => {
  const fill = { ...clone, method: plainFill(id(7)) };
  await expect(
    renderCommand([await zipped(bundleOf({ repairs: [fill] })), '--out', at('fill.png')]),
  ).rejects.toThrow(/had not been searched/);
  expect(existsSync(at('fill.png'))).toBe(false);
});

describe('what is no job', () => {
  const refused = async (path: string): Promise<string> =>
    renderCommand([path, '--out', at('never.png')]).then(
      () => 'rendered',
      (error: unknown) => {
        expect(error).toBeInstanceOf(BadUsage);
        return (error as Error).message;
      },
    );
  afterEach(() => expect(existsSync(at('never.png'))).toBe(false));

  test('is told what is wrong with it', async () => {
    expect(await refused(at('none.zip'))).toMatch(/there is no file/);
    await writeFile(at('text.zip'), 'only words');
    expect(await refused(at('text.zip'))).toMatch(/not a zip file/);
    await writeFile(at('other.zip'), zipSync({ 'a.txt': strToU8('a') }));
    expect(await refused(at('other.zip'))).toMatch(/not a delivered job/);
    expect(await refused(await zipped('{"format": '))).toMatch(/not JSON/);
    expect(await refused(await zipped({ format: 'something else' }))).toMatch(/cannot be read/);
    expect(await refused(await zipped(bundleOf(), {}))).toMatch(/an original is missing/);
  });

  test('a name that leads out of the job reaches no file', async () => {
    const name = '../beside.png';
    const job = bundleOf({ elsewhere: { [id(8)]: name } });
    const files = { [BUNDLE.original(hash)]: original, [BUNDLE.original(name)]: original };
    expect(await refused(await zipped(job, files))).toMatch(/not named by its hash/);
    expect(existsSync(join(tmpdir(), 'beside.png'))).toBe(false);
  });
});
