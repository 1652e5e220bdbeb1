import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeFile } from 'node:fs/promises';
import { randomUUID } from 'node:crypto';
import type { Decoded } from '@tersum/codec';
import { decode, encode } from '@tersum/codec';
import { createRaster, crop, seededRandom } from '@tersum/core';
import type {
  Job,
  JoinPlan,
  Making,
  MakingStatus,
  Picture,
  PictureRecords,
  View,
} from '@tersum/document';
import { ReportSchema, shiftDonor } from '@tersum/document';
import type { Express } from 'express';
import { PDFDocument } from 'pdf-lib';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { beginServer } from './test-server.js';

let folder: string;
let services: Services;
let app: Express;
let job: Job;
const ids: string[] = [];

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'made-'));
  ({ services, app } = await beginServer(folder));
  const draft = { title: 'Mole head', client: 'Ottilie', due: null, notes: '', state: 'new' };
  job = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
  const random = seededRandom(5);
  const scene = createRaster(420, 260, 3);
  scene.data.fill(120);
  for (let k = 0; k < 1100; k++) {
    const [x0, y0] = [random.between(0, 419), random.between(0, 259)];
    const [w, h] = [random.between(4, 26), random.between(4, 26)];
    const colour = [0, 1, 2].map(() => random.between(40, 210));
    for (let y = y0; y < Math.min(260, y0 + h); y++)
      for (let x = x0; x < Math.min(420, x0 + w); x++) scene.data.set(colour, (y * 420 + x) * 3);
  }
  for (const x of [0, 140]) {
    const frame = crop(scene, { x, y: 0, width: 280, height: 250 });
    const path = join(folder, `frame-${x}.png`);
    await writeFile(path, await encode(frame, 'png', 90, { icc: null, exif: null, ppi: 300 }));
    const answer = await request(app).post(`/api/jobs/${job.id}/pictures`).attach('file', path);
    ids.push((answer.body as Picture).id);
  }
}, 120_000);
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

async function decodeBytes(file: Buffer): Promise<Decoded> {
  const path = join(folder, `${randomUUID()}.png`);
  await writeFile(path, file);
  return decode(path);
}

/** Begins a making and waits for its end. */
async function made(making: Making): Promise<MakingStatus> {
  const begun = await request(app).post(`/api/jobs/${job.id}/makings`).send(making).expect(202);
  const path = `/api/jobs/${job.id}/makings/${(begun.body as MakingStatus).id}`;
  for (;;) {
    const status = (await request(app).get(path).expect(200)).body as MakingStatus;
    if (status.state !== 'working') return status;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

test('two frames become one picture of the job', async () => {
  const status = await made({
    kind: 'join',
    pictures: ids,
    projection: 'plane',
    edges: 'crop',
    reach: 1,
  });
  expect(status.message).toBeNull();
  expect(status.state).toBe('ready');
  const [picture] = status.pictures;
  expect(picture!.jobId).toBe(job.id);
  expect(Math.abs(picture!.width - 420)).toBeLessThan(6);
  expect(picture!.ppi).toBe(300);
}, 120_000);

test('what joined frames come to is told before; filled edges are a record of the joined picture', async () => {
  const plan = await request(app)
    .post(`/api/jobs/${job.id}/joins/plan`)
    .send({ pictures: ids, projection: 'plane' })
    .expect(200);
  const { steps } = plan.body as JoinPlan;
  expect(steps).toHaveLength(11);
  expect(steps[0]!.invented).toBe(0);
  expect(Math.abs(steps[10]!.width - 420)).toBeLessThan(8);
  for (let k = 1; k < steps.length; k++)
    expect(steps[k]!.width).toBeGreaterThanOrEqual(steps[k - 1]!.width);
  const filled = {
    kind: 'join',
    pictures: ids,
    projection: 'plane',
    edges: 'fill',
    reach: 1,
  } as const;
  const status = await made(filled);
  const { repairs, layers } = (
    await request(app).get(`/api/pictures/${status.pictures[0]!.id}`).expect(200)
  ).body as PictureRecords;
  // Frames of one scene cut level leave nothing bare, or a sliver at most: a record only where there is something.
  expect(repairs.length).toBeLessThanOrEqual(1);
  for (const { method, layerId } of repairs) {
    expect(method.kind).toBe('fill');
    expect(layers.find((l) => l.id === layerId)!.name).toBe('Ragged edges');
  }
}, 120_000);

test('the simulated scanner delivers 16 bits at the ppi asked for; a stopped making adds nothing', async () => {
  const order = {
    device: 'scanner',
    print: 'regatta',
    ppi: 300,
    colour: false,
    bits: 16,
    glass: 'dirty',
  } as const;
  const status = await made({ kind: 'simulated', order });
  expect(status.pictures[0]).toMatchObject({ bits: 16, ppi: 300, channels: 1 });
  const count = async (): Promise<number> =>
    ((await request(app).get(`/api/jobs/${job.id}`)).body as Job).pictures.length;
  const before = await count();
  const begun = await request(app)
    .post(`/api/jobs/${job.id}/makings`)
    .send({ kind: 'join', pictures: ids, projection: 'plane', edges: 'fill' });
  const path = `/api/jobs/${job.id}/makings/${(begun.body as MakingStatus).id}`;
  await request(app).delete(path).expect(200);
  let state = 'working';
  while (state === 'working') {
    await new Promise((resolve) => setTimeout(resolve, 50));
    state = ((await request(app).get(path)).body as MakingStatus).state;
  }
  expect(state).toBe('stopped');
  expect(await count()).toBe(before);
}, 120_000);

test('the schemas of what leaves the house are published', async () => {
  const job = await request(app).get('/api/schemas/job.json').expect(200);
  expect(job.body.required).toEqual(expect.arrayContaining(['picture', 'repairs', 'tones']));
  const report = await request(app).get('/api/schemas/treatment-report.json').expect(200);
  expect(report.body.properties.format.const).toBe('tersum-treatment-report');
  await request(app).get('/api/schemas/nothing.json').expect(404);
});

test('what cannot be made is told in a sentence', async () => {
  const strangers = await made({
    kind: 'join',
    pictures: [ids[0]!, randomUUID()],
    projection: 'plane',
    edges: 'crop',
    reach: 1,
  });
  expect(strangers.state).toBe('failed');
  expect(strangers.message).toMatch(/\.$/);
  await request(app)
    .post(`/api/jobs/${job.id}/makings`)
    .send({ kind: 'join', pictures: [ids[0]], projection: 'plane', edges: 'crop' })
    .expect(400);
  await request(app).get(`/api/jobs/${job.id}/makings/nothing`).expect(404);
}, 60_000);

test('a repair is proved and reported: its number, its size in mm, its share of the picture', async () => {
  const path = `/api/pictures/${ids[0]!}`;
  const records = (await request(app).get(path)).body as PictureRecords;
  const repair = {
    id: randomUUID(),
    layerId: records.layers[0]!.id,
    position: 0,
    enabled: true,
    site: { kind: 'rectangle', x: 100, y: 60, width: 60, height: 50 },
    width: 40,
    softness: 0,
    flow: 1,
    strength: 1,
    method: { kind: 'clone', donor: shiftDonor(70, 60), other: null },
    reason: 'a mark',
    createdAt: '2026-11-02T10:00:00.000Z',
  };
  await request(app)
    .post(`${path}/changes`)
    .send({
      version: records.picture.version,
      label: 'Clone',
      edits: [{ entity: 'repair', id: repair.id, after: repair }],
    })
    .expect(200);
  const proof = (await request(app).post(`${path}/proof`).expect(200)).body as {
    tells: { kind: string; repair: string }[];
  };
  // What was copied from beside it is seen twice.
  expect(proof.tells).toContainEqual(
    expect.objectContaining({ kind: 'repeat', repair: repair.id }),
  );

  const report = ReportSchema.parse((await request(app).get(`${path}/report.json`)).body);
  const [told] = report.layers[0]!.repairs;
  expect(told).toMatchObject({ number: 1, method: 'Clone', sizePx: 60, manner: 'rebuilt' });
  // 60 px at 300 ppi are 5.08 mm.
  expect(told!.sizeMm).toBeCloseTo(5.08, 9);
  expect(report.shares.rebuilt).toBeCloseTo((60 * 50) / (280 * 250), 9);
  expect(report.untouched).toBeCloseTo(1 - (60 * 50) / (280 * 250), 9);
  expect(report.statement).toMatch(/rebuilt from elsewhere/);

  for (const [address, least] of [
    [`${path}/report.pdf`, 2],
    [`/api/jobs/${job.id}/contact.pdf`, 1],
  ] as const) {
    const answer = await request(app).get(address).responseType('blob').expect(200);
    expect(answer.type).toBe('application/pdf');
    const pdf = await PDFDocument.load(answer.body as Buffer);
    expect(pdf.getPageCount()).toBeGreaterThanOrEqual(least);
  }

  const page = (await request(app).get(`${path}/report.html`).expect(200)).text;
  expect(page).toContain('<td class="n">5.1 mm</td>');
  expect(page).toContain('<td>a mark</td>');
  // The number stands in the middle of the site: (100 + 30) / 280 and (60 + 25) / 250 of the picture.
  expect(page).toMatch(/left:46\.42\d*%;top:34%">1</);
  expect(page).not.toMatch(/src="(?!data:)/);

  const sheet = await request(app)
    .get(`/api/jobs/${job.id}/contact.png`)
    .responseType('blob')
    .expect(200);
  const { raster } = await decodeBytes(sheet.body as Buffer);
  expect(raster.width).toBe(1360);
  // The pair of the repaired picture differs where the repair lies, and nowhere in its upper left quarter.
  const [scale, left] = [Math.min(632 / 280, 410 / 250), 40];
  const at = (x: number, y: number, side: number): number =>
    raster.data[
      ((Math.round(y * scale) + 110) * raster.width + Math.round(x * scale) + left + side * 648) *
        raster.channels
    ]!;
  let [inside, outside] = [0, 0];
  for (let y = 65; y < 105; y++)
    for (let x = 105; x < 155; x++) inside += Math.abs(at(x, y, 0) - at(x, y, 1));
  for (let y = 5; y < 45; y++)
    for (let x = 5; x < 55; x++) outside += Math.abs(at(x, y, 0) - at(x, y, 1));
  expect(inside).toBeGreaterThan(20 * outside);
}, 120_000);

test('a picture made grey before repairs is shown so, told of in the report, and taken back', async () => {
  const path = `/api/pictures/${ids[1]!}`;
  const tile = async (key: string): Promise<Buffer> =>
    (await request(app).get(`${path}/tiles/0/0/0/${key}`).responseType('blob').expect(200))
      .body as Buffer;
  const { picture } = (await request(app).get(path)).body as PictureRecords;
  const before = (await request(app).get(`${path}/view`)).body as View;
  expect(before.base).toBe('original');
  const preparation = { id: randomUUID(), grey: [0, 1, 0], blocks: null };
  const change = {
    version: picture.version,
    label: 'Go on in grey',
    edits: [{ entity: 'preparation', id: preparation.id, after: preparation }],
  };
  await request(app).post(`${path}/changes`).send(change).expect(200);
  const view = (await request(app).get(`${path}/view`)).body as View;
  expect(view.base).not.toBe('original');
  const [grey, received] = [await tile(view.base), await tile('original')];
  // A bitmap file holds blue, green, red after its head.
  const head = grey.readUInt32LE(10);
  let coloured = 0;
  for (let i = head; i + 2 < grey.length && i < head + 3 * 200; i += 3) {
    expect([grey[i], grey[i + 2]]).toEqual([received[i + 1], received[i + 1]]);
    if (received[i] !== received[i + 1]) coloured++;
  }
  expect(coloured).toBeGreaterThan(0);
  const report = ReportSchema.parse((await request(app).get(`${path}/report.json`)).body);
  expect(report.prepared).toEqual(['grey made of 0 %, 100 %, 0 % of red, green and blue']);
  expect(report.statement).toMatch(/prepared as a whole/);

  const second = { ...preparation, id: randomUUID() };
  await request(app)
    .post(`${path}/changes`)
    .send({
      version: picture.version + 1,
      label: 'Twice',
      edits: [{ entity: 'preparation', id: second.id, after: second }],
    })
    .expect(422);
  await request(app)
    .post(`${path}/undo`)
    .send({ version: picture.version + 1 })
    .expect(200);
  expect(((await request(app).get(`${path}/view`)).body as View).base).toBe('original');
  // What nothing asks for any more does not stay.
  expect(await readdir(join(folder, 'prepared'))).toHaveLength(1);
  await services.bases.tidy();
  expect(await readdir(join(folder, 'prepared'))).toEqual([]);
}, 30_000);
