import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, NO_LEVELS, seededRandom } from '@tersum/core';
import type { Job, LevelsAnswer, Picture, PictureRecords, PrintsAnswer } from '@tersum/document';
import type { Express } from 'express';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { beginServer } from './test-server.js';

let folder: string;
let services: Services;
let app: Express;
let job: Job;

/** Values 0..255 told by place, with a little noise. */
function drawn(
  width: number,
  height: number,
  at: (x: number, y: number) => readonly [number, number, number],
  noise = 4,
): Raster {
  const random = seededRandom(8);
  const picture = createRaster(width, height, 3);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      for (const v of at(x, y)) picture.data[i++] = Math.round(v + noise * (random.unit() - 0.5));
  return picture;
}

async function sent(raster: Raster, name: string): Promise<Picture> {
  const file = await encode(raster, 'png', 90, { icc: null, exif: null, ppi: 300 });
  const answer = await request(app)
    .post(`/api/jobs/${job.id}/pictures`)
    .attach('file', file, name)
    .expect(201);
  return answer.body as Picture;
}
const path = (picture: Picture, rest: string): string => `/api/pictures/${picture.id}${rest}`;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'finish-'));
  ({ services, app } = await beginServer(folder));
  const draft = { title: 'Slip road', client: 'Ottilie', due: null, notes: '', state: 'new' };
  job = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
});
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

describe('pixels in parts', () => {
  const raster = drawn(160, 90, (x, y) => [x, y, (x + y) / 2]);
  let picture: Picture;
  beforeAll(async () => (picture = await sent(raster, 'Ramp.png')));

  const part = async (query: string) => {
    const answer = await request(app)
      .get(path(picture, `/part?${query}`))
      .buffer(true)
      .parse((res, done) => {
        const chunks: Buffer[] = [];
        res.on('data', (chunk: Buffer) => chunks.push(chunk));
        res.on('end', () => done(null, Buffer.concat(chunks)));
      })
      .expect(200);
    const bytes = answer.body as Buffer;
    const [width, height, channels] = String(answer.headers['x-part']).split(' ').map(Number);
    const values = Array.from({ length: bytes.length / 2 }, (_, k) => bytes.readUInt16LE(2 * k));
    return { width, height, channels, values };
  };

  test('come at 16 bits, little-endian, as they were received', async () => {
    const { width, height, channels, values } = await part(
      'x=10&y=20&width=30&height=12&factor=1&state=received',
    );
    expect([width, height, channels]).toEqual([30, 12, 3]);
    for (let y = 0; y < 12; y++)
      for (let x = 0; x < 30; x++)
        for (let c = 0; c < 3; c++)
          expect(values[3 * (y * 30 + x) + c]).toBe(
            257 * raster.data[3 * ((20 + y) * 160 + 10 + x) + c]!,
          );
  });

  test('reduced ones are means of what they stand for', async () => {
    const { width, height, values } = await part('x=0&y=0&width=160&height=88&factor=4');
    expect([width, height]).toEqual([40, 22]);
    const [x, y] = [9, 7];
    let sum = 0;
    for (let b = 0; b < 4; b++)
      for (let a = 0; a < 4; a++) sum += raster.data[3 * ((4 * y + b) * 160 + 4 * x + a)]!;
    // Means are of light, or of values: over so short a ramp both come to the same.
    expect(Math.abs(values[3 * (y * 40 + x)]! / 257 - sum / 16)).toBeLessThan(1.5);
  });

  test('too large ones are refused with what is wrong, and so is a wrong question', async () => {
    const large = await request(app)
      .get(path(picture, '/part?x=0&y=0&width=9000&height=9000&factor=1'))
      .expect(400);
    expect(large.body.message).toMatch(/too large/);
    const wrong = async (rest: string, status: number): Promise<string> =>
      (await request(app).get(path(picture, rest)).expect(status)).body.message as string;
    expect(await wrong('/part?x=0&y=0&width=0&height=5&factor=1', 400)).toMatch(/^width: /);
    expect(await wrong('/part?x=0&y=0&width=9&height=5', 400)).toMatch(/^factor: /);
    expect(await wrong('/part?x=9000&y=0&width=9&height=5&factor=1', 404)).toMatch(/no such part/);
    expect(await wrong('/tiles/a/0/0/original', 400)).toMatch(/^level: /);
    expect(await wrong('/tiles/0/99/0/original', 404)).toMatch(/no such part/);
  });
});

describe('what is measured of a picture', () => {
  test('levels find where tones begin and end, after the steps that come before', async () => {
    const picture = await sent(
      drawn(120, 100, (x) => [40 + 1.4 * x, 60 + 1.1 * x, 80 + 0.8 * x], 0),
      'Faded.png',
    );
    const asked = async (steps: object[]): Promise<LevelsAnswer> =>
      (await request(app).post(path(picture, '/levels')).send({ steps, share: 0 }).expect(200))
        .body as LevelsAnswer;
    const { all, each } = await asked([]);
    expect(all.black).toBeCloseTo(40 / 255, 1);
    each.forEach((found, c) => {
      const [from, slope] = [40 + 20 * c, 1.4 - 0.3 * c];
      expect(Math.abs(found.black - from / 255)).toBeLessThan(0.02);
      expect(Math.abs(found.white - (from + 119 * slope) / 255)).toBeLessThan(0.02);
    });
    const opened = {
      id: '00000000-0000-4000-8000-000000000001',
      position: 1,
      enabled: true,
      strength: 1,
      mask: null,
      act: { kind: 'levels', all, channels: [NO_LEVELS, NO_LEVELS, NO_LEVELS] },
    };
    expect((await asked([opened])).all.black).toBeLessThan(0.02);
  });

  test('a picture that stands turned is told by how much', async () => {
    const lean = Math.tan((3 * Math.PI) / 180);
    const picture = await sent(
      drawn(420, 300, (x, y) => {
        const course = Math.floor((y + lean * x) / 24);
        const v = course % 2 ? 170 : 90;
        return [v, v, v];
      }),
      'Tilted.png',
    );
    const { body } = await request(app).post(path(picture, '/tilt')).send({}).expect(200);
    expect(Math.abs(Math.abs(body.angle as number) - 3)).toBeLessThan(0.4);
  });

  test('blocks, detail and the best grey are answered in their own shapes', async () => {
    const picture = await sent(
      drawn(200, 160, (x, y) => [120 + 40 * Math.sin(x / 3), 120, 120 + 30 * Math.cos(y / 4)]),
      'Cloth.png',
    );
    const post = async (rest: string) =>
      (await request(app).post(path(picture, rest)).send({}).expect(200)).body;
    expect(await post('/blocks')).toHaveProperty('blocks');
    const detail = await post('/detail');
    expect(detail.interpolated).toBe(false);
    expect(detail.reach).toBeGreaterThan(0);
    expect(await post('/channels')).toHaveProperty('choice');
  });

  test('pixels an inch can be said, within what a print can have', async () => {
    const picture = await sent(
      drawn(40, 30, () => [100, 100, 100]),
      'Small.png',
    );
    const put = (ppi: unknown) => request(app).put(path(picture, '/ppi')).send({ ppi });
    const said = (await put(600).expect(200)).body as PictureRecords;
    expect(said.picture.ppi).toBe(600);
    expect((await put(0.2).expect(400)).body.message).toMatch(/at least 1 ppi/);
    const now = (await request(app).get(path(picture, '')).expect(200)).body as PictureRecords;
    expect(now.picture.ppi).toBe(600);
    expect(((await put(null).expect(200)).body as PictureRecords).picture.ppi).toBeNull();
  });
});

describe('prints on one scan', () => {
  const lies = (x: number, y: number): boolean =>
    y > 40 && y < 260 && ((x > 40 && x < 300) || (x > 360 && x < 620));
  let scan: Picture;
  beforeAll(async () => {
    scan = await sent(
      drawn(660, 300, (x, y) =>
        lies(x, y) ? [90 + ((x >> 3) % 5) * 20, 110 + ((y >> 3) % 4) * 18, 100] : [244, 244, 242],
      ),
      'Two prints.png',
    );
  });

  test('are found, and each becomes a picture of the job', async () => {
    const { prints } = (await request(app).post(path(scan, '/prints')).send({}).expect(200))
      .body as PrintsAnswer;
    expect(prints).toHaveLength(2);
    const [left, right] = prints.map((p) => p.quad);
    expect(Math.abs(left![0][0] - 41)).toBeLessThan(4);
    expect(Math.abs(right![0][0] - 361)).toBeLessThan(4);
    const split = await request(app)
      .post(path(scan, '/split'))
      .send({ quads: prints.map((p) => p.quad) })
      .expect(201);
    const made = split.body.pictures as Picture[];
    expect(made.map((p) => p.name)).toEqual(['Two prints 1.tif', 'Two prints 2.tif']);
    for (const { width, height, ppi, jobId } of made) {
      expect(Math.abs(width - 259)).toBeLessThan(6);
      expect(Math.abs(height - 219)).toBeLessThan(6);
      expect(ppi).toBe(300);
      expect(jobId).toBe(job.id);
    }
  });

  test('nothing is split without quadrilaterals', async () => {
    await request(app).post(path(scan, '/split')).send({ quads: [] }).expect(400);
  });
});

describe('widening', () => {
  test('what stands out of a backdrop is outlined, and a plan says what new sides come from', async () => {
    const picture = await sent(
      drawn(320, 220, (x, y) =>
        Math.hypot(x - 160, y - 130) < 50 ? [150, 60, 40] : [206 - y / 8, 204 - y / 8, 200 - y / 8],
      ),
      'Jug.png',
    );
    const outlines = (await request(app).post(path(picture, '/subject')).send({}).expect(200)).body
      .outlines as [number, number][][];
    const points = outlines.flat();
    expect(points.length).toBeGreaterThan(6);
    for (const [x, y] of points) expect(Math.hypot(x - 160, y - 130)).toBeLessThan(70);
    await request(app).post(path(picture, '/backdrop')).send({}).expect(200);
    const sides = { left: 60, right: 60, top: 0, bottom: 0 };
    const plan = await request(app).post(path(picture, '/widen')).send({ sides });
    expect([plan.status, plan.body.message]).toEqual([200, undefined]);
  });
});
