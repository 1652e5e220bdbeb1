import { existsSync, readdirSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import type { Raster } from '@tersum/core';
import { createRaster, seededRandom } from '@tersum/core';
import type { Job, Picture, PictureRecords, Repair } from '@tersum/document';
import { plainFill, ReportSchema, shiftDonor } from '@tersum/document';
import type { Express } from 'express';
import { createHash, randomUUID } from 'node:crypto';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { beginServer } from './test-server.js';

let folder: string;
let services: Services;
let app: Express;

async function begin(): Promise<void> {
  ({ services, app } = await beginServer(folder));
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'server-'));
  await begin();
}, 60_000);
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

const draft = {
  title: 'Harbour wall',
  client: 'Ottilie',
  due: '2026-12-01',
  notes: '',
  state: 'new',
};

function noise(seed: number): Raster {
  const raster = createRaster(640, 530, 3, 'u16');
  const random = seededRandom(seed);
  for (let i = 0; i < raster.data.length; i++) raster.data[i] = random.between(0, 65535);
  return raster;
}

async function newPicture(seed = 1): Promise<{ picture: Picture; raster: Raster }> {
  const job: Job = (await request(app).post('/api/jobs').send(draft).expect(201)).body;
  const raster = noise(seed);
  const file = await encode(raster, 'tiff', 90, { icc: null, exif: null, ppi: 400 });
  const answer = await request(app)
    .post(`/api/jobs/${job.id}/pictures`)
    .attach('file', file, 'Mole, früh.tif');
  expect(answer.status).toBe(201);
  return { picture: answer.body, raster };
}

async function recordsOf(id: string): Promise<PictureRecords> {
  return (await request(app).get(`/api/pictures/${id}`).expect(200)).body;
}

function cloneAt(records: PictureRecords, x: number): Repair {
  return {
    id: randomUUID(),
    layerId: records.layers[0]!.id,
    position: 0,
    enabled: true,
    site: { kind: 'rectangle', x, y: 40, width: 30, height: 20 },
    width: 10,
    softness: 0,
    flow: 1,
    strength: 1,
    method: { kind: 'clone', donor: shiftDonor(100, 50), other: null },
    reason: '',
    createdAt: '2026-11-02T10:00:00.000Z',
  };
}

const change = (id: string, version: number, after: Repair) =>
  request(app)
    .post(`/api/pictures/${id}/changes`)
    .send({
      version,
      label: 'Clone a rectangle',
      edits: [{ entity: 'repair', id: after.id, after }],
    });

describe('the HTTP interface', () => {
  test('is healthy, isolated and closed to foreign pages', async () => {
    const health = await request(app).get('/api/health').expect(200);
    expect(health.body.status).toBe('ok');
    expect(health.headers['cross-origin-opener-policy']).toBe('same-origin');
    expect(health.headers['cross-origin-embedder-policy']).toBe('require-corp');
    expect(health.headers['content-security-policy']).toContain("default-src 'self'");
    const post = () => request(app).post('/api/jobs').send(draft);
    await post().set('Origin', 'http://elsewhere.example').expect(403);
    await post().set('Sec-Fetch-Site', 'cross-site').expect(403);
    await request(app).get('/api/jobs').set('Host', 'rebound.example').expect(403);
    await post().set('Host', '127.0.0.1:4680').set('Origin', 'http://127.0.0.1:4680').expect(201);
  });

  test('says what is wrong with a job, and with addresses that lead nowhere', async () => {
    const bad = await request(app)
      .post('/api/jobs')
      .send({ ...draft, title: ' ' })
      .expect(400);
    expect(bad.body.message).toContain('Give the job a title.');
    await request(app).get('/api/nothing').expect(404);
    await request(app).get(`/api/pictures/${randomUUID()}`).expect(404);
  });

  test('takes a picture in, keeps its facts and stores one original for equal files', async () => {
    const { picture } = await newPicture(3);
    expect(picture).toMatchObject({
      name: 'Mole, früh.tif',
      width: 640,
      height: 530,
      bits: 16,
      format: 'tiff',
      version: 0,
    });
    expect(picture.ppi).toBeCloseTo(400, 0);
    const again = await newPicture(3);
    expect(again.picture.original).toBe(picture.original);
    expect(again.picture.id).not.toBe(picture.id);
  });

  test('leaves nothing behind of a file it refuses', async () => {
    const job: Job = (await request(app).post('/api/jobs').send(draft)).body;
    const bad = await request(app)
      .post(`/api/jobs/${job.id}/pictures`)
      .attach('file', Buffer.from('no picture'), 'x.png');
    expect(bad.status).toBe(415);
    expect(bad.body.message).toMatch(/Use PNG, JPEG, TIFF, WebP or BMP/);
    expect(readdirSync(join(folder, 'incoming'))).toEqual([]);
    expect((await request(app).get(`/api/jobs/${job.id}`)).body.pictures).toEqual([]);
  });

  test('keeps changes, undoes and redoes them, also after a restart', async () => {
    const { picture } = await newPicture(5);
    const repair = cloneAt(await recordsOf(picture.id), 50);
    const done = (await change(picture.id, 0, repair).expect(200)).body as PictureRecords;
    expect(done.picture.version).toBe(1);
    expect(done.undo).toBe('Clone a rectangle');
    await closeServices(services);
    await begin();
    expect((await recordsOf(picture.id)).repairs).toEqual([repair]);
    const undone = await request(app)
      .post(`/api/pictures/${picture.id}/undo`)
      .send({ version: 1 })
      .expect(200);
    expect(undone.body.repairs).toEqual([]);
    expect(undone.body.redo).toBe('Clone a rectangle');
    const redone = await request(app)
      .post(`/api/pictures/${picture.id}/redo`)
      .send({ version: 2 })
      .expect(200);
    expect(redone.body.repairs).toEqual([repair]);
    await request(app).post(`/api/pictures/${picture.id}/redo`).send({ version: 3 }).expect(422);
  });

  test('tells a second writer that the picture has changed, and overwrites nothing', async () => {
    const { picture } = await newPicture(6);
    const records = await recordsOf(picture.id);
    await change(picture.id, 0, cloneAt(records, 50)).expect(200);
    const late = await change(picture.id, 0, cloneAt(records, 90)).expect(409);
    expect(late.body.message).toMatch(/changed in another window/);
    expect((await recordsOf(picture.id)).repairs).toHaveLength(1);
  });

  test('refuses records that cannot be', async () => {
    const { picture } = await newPicture(7);
    const records = await recordsOf(picture.id);
    const lost = { ...cloneAt(records, 50), layerId: randomUUID() };
    expect((await change(picture.id, 0, lost).expect(422)).body.message).toMatch(/repair layer/);
    const wide = { ...cloneAt(records, 50), width: -4 };
    await change(picture.id, 0, wide).expect(400);
    expect((await recordsOf(picture.id)).picture.version).toBe(0);
  });

  test('names the tiles a repair touches and sends their pixels', async () => {
    const { picture, raster } = await newPicture(8);
    await change(picture.id, 0, cloneAt(await recordsOf(picture.id), 500)).expect(200);
    const { body: view } = await request(app).get(`/api/pictures/${picture.id}/view`).expect(200);
    expect(Object.keys(view.tiles).sort()).toEqual(['0/1/0', '0/2/0', '1/0/0', '1/1/0', '2/0/0']);
    const tile = await request(app)
      .get(`/api/pictures/${picture.id}/tiles/0/1/0/${view.tiles['0/1/0']}`)
      .expect(200)
      .expect('Cache-Control', /immutable/);
    await writeFile(join(folder, 'tile.bmp'), tile.body as Buffer);
    const shown = await decode(join(folder, 'tile.bmp'));
    const at = (x: number, y: number) => shown.raster.data[(y * 256 + x - 256) * 3]!;
    const stored = (x: number, y: number) =>
      Math.round((raster.data[(y * 640 + x) * 3]! * 255) / 65535);
    expect(at(505, 45)).toBe(stored(605, 95));
    expect(at(400, 45)).toBe(stored(400, 45));
    await request(app).get(`/api/pictures/${picture.id}/tiles/0/0/0/unknown`).expect(404);
    await request(app).get(`/api/pictures/${picture.id}/tiles/0/9/0/original`).expect(404);
  });

  test('shows a trial without keeping it', async () => {
    const { picture } = await newPicture(9);
    const after = cloneAt(await recordsOf(picture.id), 50);
    const trial = await request(app)
      .post(`/api/pictures/${picture.id}/preview`)
      .send({ version: 0, edits: [{ entity: 'repair', id: after.id, after }] })
      .expect(200);
    expect(trial.body.tiles['0/0/0']).toBeDefined();
    await request(app)
      .get(`/api/pictures/${picture.id}/tiles/0/0/0/${trial.body.tiles['0/0/0']}`)
      .expect(200);
    expect((await recordsOf(picture.id)).picture.version).toBe(0);
  });

  test('a fill is searched, and its map found again after a restart', async () => {
    const { picture } = await newPicture(10);
    const base = cloneAt(await recordsOf(picture.id), 50);
    const fill: Repair = {
      ...base,
      method: plainFill(randomUUID()),
    };
    await change(picture.id, 0, fill).expect(200);
    const first = (await request(app).get(`/api/pictures/${picture.id}/view`).expect(200)).body;
    await closeServices(services);
    await begin();
    const second = (await request(app).get(`/api/pictures/${picture.id}/view`).expect(200)).body;
    expect(second).toEqual(first);
    expect(readdirSync(join(folder, 'maps')).length).toBeGreaterThan(0);
  }, 60_000);

  test('variants are ranked and kept, so that choosing one needs no search', async () => {
    const { picture } = await newPicture(31);
    const fill: Repair = {
      ...cloneAt(await recordsOf(picture.id), 50),
      method: plainFill(randomUUID()),
    };
    await change(picture.id, 0, fill).expect(200);
    const plain = (await request(app).get(`/api/pictures/${picture.id}/view`).expect(200)).body;
    const ask = (what: string, body: object) =>
      request(app).post(`/api/pictures/${picture.id}/${what}`).send(body);
    const { variants } = (await ask('variants', { repair: fill, from: 1 }).expect(200)).body;
    expect(variants).toHaveLength(3);
    const scores = variants.map((v: { score: number }) => v.score);
    expect(scores).toEqual([...scores].sort((a: number, b: number) => a - b));
    const search = jest.spyOn(services.pool, 'search');
    const { search: name, seed, lean } = variants[1];
    const chosen: Repair = { ...fill, method: { ...plainFill(name, seed), lean } };
    await change(picture.id, 1, chosen).expect(200);
    const view = (await request(app).get(`/api/pictures/${picture.id}/view`).expect(200)).body;
    expect(view.tiles).not.toEqual(plain.tiles);
    expect(search).not.toHaveBeenCalled();

    const sure = `/api/pictures/${picture.id}/searches/${name}/confidence`;
    const { rect, samples } = (await request(app).get(sure).expect(200)).body;
    const bytes = Buffer.from(samples, 'base64');
    expect(bytes).toHaveLength(rect.width * rect.height);
    expect(bytes.filter((v) => v > 0)).toHaveLength(30 * 20);
    await request(app)
      .get(`/api/pictures/${picture.id}/searches/${randomUUID()}/confidence`)
      .expect(404);
    await ask('variants', { repair: cloneAt(await recordsOf(picture.id), 9) }).expect(400);

    const { grounds } = (await ask('grounds', { repair: fill }).expect(200)).body;
    expect(grounds.length).toBeGreaterThan(0);
    const { portions } = (await ask('portions', { repair: fill }).expect(200)).body;
    expect(portions.length).toBeGreaterThan(0);
    const { guides } = (await ask('guides', { repair: fill, sure: true }).expect(200)).body;
    expect(guides).toEqual([]);
  });

  test('exports exact pixels under a name made by the rule', async () => {
    const { picture, raster } = await newPicture(11);
    await change(picture.id, 0, cloneAt(await recordsOf(picture.id), 50)).expect(200);
    const order = { format: 'tiff', rule: '{job}-{picture}' };
    let status = (
      await request(app).post(`/api/pictures/${picture.id}/exports`).send(order).expect(202)
    ).body;
    expect(status.fileName).toBe('Harbour-wall-Mole-früh.tif');
    for (let k = 0; k < 200 && status.state === 'working'; k++) {
      await new Promise((resolve) => setTimeout(resolve, 50));
      status = (await request(app).get(`/api/exports/${status.id}`)).body;
    }
    expect(status.state).toBe('ready');
    const path = join(folder, 'exports', status.id);
    expect(existsSync(path)).toBe(true);
    const out = await decode(path);
    expect(out.bits).toBe(16);
    expect(out.ppi).toBeCloseTo(400, 0);
    for (let p = 0; p < 640 * 530; p++) {
      const x = p % 640;
      const y = Math.floor(p / 640);
      const inside = x >= 50 && x < 80 && y >= 40 && y < 60;
      const from = inside ? (y + 50) * 640 + x + 100 : p;
      if (out.raster.data[3 * p] !== raster.data[3 * from])
        throw new Error(`pixel ${x}, ${y} differs`);
    }
    // The report names the file by what it is: the checksum is that of the bytes that were made.
    const bytes = await readFile(path);
    const { delivered, policy } = ReportSchema.parse(
      (await request(app).get(`/api/pictures/${picture.id}/report.json`).expect(200)).body,
    );
    expect(policy).toBe('documentary');
    expect(delivered).toEqual([
      {
        fileName: 'Harbour-wall-Mole-früh.tif',
        sha256: createHash('sha256').update(bytes).digest('hex'),
        bytes: bytes.length,
        at: expect.any(String),
      },
    ]);
    const page = (await request(app).get(`/api/pictures/${picture.id}/report.html`)).text;
    expect(page).toContain(delivered[0]!.sha256);
  }, 60_000);

  test('ranks donors, advises, finds outlines and twins around a site', async () => {
    const { picture } = await newPicture(21);
    const repair = cloneAt(await recordsOf(picture.id), 200);
    const ask = (what: string, body: object) =>
      request(app).post(`/api/pictures/${picture.id}/${what}`).send(body);
    const { offers } = (await ask('donors', { repair }).expect(200)).body;
    expect(offers).toHaveLength(5);
    const misfits = offers.map((o: { misfit: number }) => o.misfit);
    expect(misfits).toEqual([...misfits].sort((a: number, b: number) => a - b));
    for (const { donor } of offers)
      expect(Math.abs(donor.dx) >= 30 || Math.abs(donor.dy) >= 20).toBe(true);
    const { advice, facts } = (await ask('advice', { repair }).expect(200)).body;
    expect(['clone', 'graft', 'fill']).toContain(advice.method);
    expect(facts.area).toBe(30 * 20);
    const { twins } = (await ask('twins', { repair }).expect(200)).body;
    expect(twins.map((t: { over: string }) => t.over).sort()).toEqual(['none', 'x', 'y']);
    const scribble = [
      [300, 300],
      [310, 305],
    ];
    expect((await ask('region', { scribble }).expect(200)).body.outline.length).toBeGreaterThan(2);
    await ask('donors', { repair: { ...repair, width: -1 } }).expect(400);
  }, 30_000);

  test('keeps donors at hand for a job, and refuses those of other jobs', async () => {
    const { picture } = await newPicture(22);
    const { picture: foreign } = await newPicture(23);
    const laid = { turn: 12, mirrorX: true, mirrorY: false, scale: 1.5 };
    const kept = { pictureId: picture.id, name: picture.name, at: [120, 80], laid };
    const address = `/api/jobs/${picture.jobId}/donors`;
    const { body } = await request(app).post(address).send(kept).expect(201);
    expect(body).toMatchObject(kept);
    await request(app)
      .post(address)
      .send({ ...kept, pictureId: foreign.id })
      .expect(422);
    expect((await request(app).get(address).expect(200)).body).toEqual([body]);
    await request(app).delete(`${address}/${body.id}`).expect(200);
    expect((await request(app).get(address).expect(200)).body).toEqual([]);
  });

  test('a donor in another picture of the job is read as received; one that is gone is named', async () => {
    const { picture } = await newPicture(24);
    const raster = noise(25);
    const file = await encode(raster, 'tiff', 90, { icc: null, exif: null, ppi: 400 });
    const other: Picture = (
      await request(app)
        .post(`/api/jobs/${picture.jobId}/pictures`)
        .attach('file', file, 'other.tif')
        .expect(201)
    ).body;
    const records = await recordsOf(picture.id);
    const from = (id: string): Repair => ({
      ...cloneAt(records, 50),
      method: { kind: 'clone', donor: { ...shiftDonor(7, -3), picture: id }, other: null },
    });
    await change(picture.id, 0, from(other.id)).expect(200);
    const view = await request(app).get(`/api/pictures/${picture.id}/view`).expect(200);
    expect(view.body.failed).toEqual({});
    const { patches } = await services.renderer.current(picture.id);
    const { rect, samples } = patches[0]!;
    const [x, y] = [60 - rect.x, 50 - rect.y];
    expect(samples.data[(y * rect.width + x) * 3]).toBe(raster.data[((50 - 3) * 640 + 60 + 7) * 3]);
    const lost = { ...from(randomUUID()), id: randomUUID() };
    await change(picture.id, 1, lost).expect(200);
    const after = await request(app).get(`/api/pictures/${picture.id}/view`).expect(200);
    expect(after.body.failed[lost.id]).toContain('not in the job');
  }, 30_000);
});
