import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encode } from '@tersum/codec';
import { createRaster, seededRandom } from '@tersum/core';
import type { DocketFinding, Job, Picture, PictureRecords, SurveyAnswer } from '@tersum/document';
import type { Express } from 'express';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { beginServer } from './test-server.js';

const [WIDTH, HEIGHT] = [260, 200];
let folder: string;
let services: Services;
let app: Express;
let picture: Picture;

async function begin(): Promise<void> {
  ({ services, app } = await beginServer(folder));
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'survey-'));
  await begin();
  const job = (
    await request(app)
      .post('/api/jobs')
      .send({ title: 'Dusty', client: 'Ottilie', due: '2026-12-01', notes: '', state: 'new' })
  ).body as Job;
  const random = seededRandom(4);
  const raster = createRaster(WIDTH, HEIGHT, 3);
  for (let y = 0, i = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      for (let c = 0; c < 3; c++, i++)
        raster.data[i] =
          110 + 25 * Math.sin(x / 40) + 20 * Math.cos(y / 33) + random.between(-2, 2);
  for (let k = 0; k < 24; k++) {
    const [cx, cy] = [random.between(8, WIDTH - 9), random.between(8, HEIGHT - 9)];
    for (let y = cy - 3; y <= cy + 3; y++)
      for (let x = cx - 3; x <= cx + 3; x++)
        if (Math.hypot(x - cx, y - cy) < 2.2)
          raster.data.fill(245, 3 * (y * WIDTH + x), 3 * (y * WIDTH + x) + 3);
  }
  const file = await encode(raster, 'png', 90, { icc: null, exif: null, ppi: 300 });
  picture = (
    await request(app).post(`/api/jobs/${job.id}/pictures`).attach('file', file, 'Dusty.png')
  ).body as Picture;
});
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

const path = (rest: string): string => `/api/pictures/${picture.id}${rest}`;
const survey = async (): Promise<SurveyAnswer> =>
  (await request(app).get(path('/survey')).expect(200)).body as SurveyAnswer;
const records = async (): Promise<PictureRecords> =>
  (await request(app).get(path('')).expect(200)).body as PictureRecords;

async function surveyed(): Promise<SurveyAnswer> {
  await request(app).post(path('/survey')).send({}).expect(202);
  for (;;) {
    const answer = await survey();
    if (answer.state !== 'surveying') return answer;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
const sure = ({ findings }: SurveyAnswer): DocketFinding[] =>
  findings.filter((f) => f.kind === 'specks' && f.score > 0.5);

describe('survey', () => {
  test('finds, and what a person decided outlives the next survey and a restart', async () => {
    expect((await survey()).state).toBe('none');
    const first = sure(await surveyed());
    expect(first.length).toBeGreaterThan(18);
    const [kept] = first;
    await request(app)
      .post(path('/findings/dismiss'))
      .send({ ids: [kept!.id], dismissed: true })
      .expect(200);
    await closeServices(services);
    await begin();
    const second = await surveyed();
    expect(second.findings.find((f) => f.id === kept!.id)).toMatchObject({ dismissed: true });
    expect(sure(second)).toHaveLength(first.length);
  });

  test('a sweep is one repair of many parts; undo opens its findings again', async () => {
    const open = sure(await survey()).filter((f) => !f.dismissed);
    const { picture: now } = await records();
    const swept = (
      await request(app)
        .post(path('/sweeps'))
        .send({ version: now.version, ids: open.map((f) => f.id) })
        .expect(200)
    ).body as { records: PictureRecords; survey: SurveyAnswer; repairIds: string[] };
    expect(swept.repairIds).toHaveLength(1);
    const repair = swept.records.repairs.find((r) => r.id === swept.repairIds[0])!;
    expect(repair.site.kind === 'parts' && repair.site.parts.length).toBeGreaterThanOrEqual(
      open.length,
    );
    expect(swept.records.layers.some((l) => l.name === 'Specks' && l.id === repair.layerId)).toBe(
      true,
    );
    expect(swept.survey.findings.filter((f) => f.repairId === repair.id)).toHaveLength(open.length);

    const out = (
      await request(app)
        .post(path('/findings/take-out'))
        .send({ version: swept.records.picture.version, id: open[0]!.id, mend: true })
        .expect(200)
    ).body as typeof swept;
    expect(out.records.repairs).toHaveLength(2);
    expect(out.survey.findings.find((f) => f.id === open[0]!.id)!.repairId).toBe(out.repairIds[0]);

    await request(app)
      .post(path('/undo'))
      .send({ version: out.records.picture.version })
      .expect(200);
    const back = await request(app)
      .post(path('/undo'))
      .send({ version: out.records.picture.version + 1 })
      .expect(200);
    expect((back.body as PictureRecords).repairs).toEqual([]);
  });

  test('a sweep from a stale window is refused and changes nothing', async () => {
    const open = sure(await survey()).filter((f) => !f.dismissed);
    const answer = await request(app)
      .post(path('/sweeps'))
      .send({ version: 0, ids: [open[0]!.id] });
    expect(answer.status).toBe(409);
    expect((await records()).repairs).toEqual([]);
    expect((await survey()).findings.find((f) => f.id === open[0]!.id)!.repairId).toBe(
      open[0]!.repairId,
    );
  });

  test('settings are kept; a click adds what lies there, and says so where nothing does', async () => {
    const { settings } = await survey();
    const next = { ...settings, policy: 'picture', sensitivity: { specks: 0.8 }, onlyShown: true };
    await request(app).post(path('/survey/settings')).send(next).expect(200);
    expect((await survey()).settings).toMatchObject(next);
    const target = sure(await survey())[0]!;
    const { x, y, width, height } = target.box;
    const added = await request(app)
      .post(path('/findings'))
      .send({ at: [Math.round(x + width / 2), Math.round(y + height / 2)] })
      .expect(200);
    const { id } = added.body as { id: string };
    const found = (await survey()).findings.find((f) => f.id === id)!;
    expect(found.by).toBe('hand');
    expect(Math.abs(found.box.x - x)).toBeLessThan(8);
    const nothing = await request(app)
      .post(path('/findings'))
      .send({ at: [-40, -40] });
    expect(nothing.status).toBe(422);
  });
});
