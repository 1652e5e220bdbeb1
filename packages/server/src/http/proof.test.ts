import { randomUUID } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encode } from '@tersum/codec';
import type { TellLimits } from '@tersum/core';
import {
  createRaster,
  isBeyond,
  seededRandom,
  STRICTEST_LIMITS,
  TELL_LIMITS,
  TELL_RANGES,
} from '@tersum/core';
import type {
  House,
  Job,
  KeptProofAnswer,
  Picture,
  PictureRecords,
  ProofAnswer,
  Repair,
  WorkLog,
} from '@tersum/document';
import { FIRST_HOUSE, shiftDonor } from '@tersum/document';
import type { Express } from 'express';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { beginServer } from './test-server.js';

const [WIDTH, HEIGHT] = [700, 420];
let folder: string;
let services: Services;
let app: Express;
let job: Job;
let picture: Picture;

async function begin(): Promise<void> {
  ({ services, app } = await beginServer(folder));
}

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'proof-'));
  await begin();
  const draft = { title: 'Slip road', client: 'Ottilie', due: null, notes: '', state: 'new' };
  job = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
  const random = seededRandom(6);
  const scene = createRaster(WIDTH, HEIGHT, 3);
  scene.data.fill(120);
  for (let k = 0; k < 2600; k++) {
    const [x0, y0] = [random.between(0, WIDTH - 1), random.between(0, HEIGHT - 1)];
    const [w, h] = [random.between(4, 20), random.between(4, 20)];
    const colour = [0, 1, 2].map(() => random.between(60, 190));
    for (let y = y0; y < Math.min(HEIGHT, y0 + h); y++)
      for (let x = x0; x < Math.min(WIDTH, x0 + w); x++)
        scene.data.set(colour, (y * WIDTH + x) * 3);
  }
  const file = await encode(scene, 'png', 90, { icc: null, exif: null, ppi: 300 });
  picture = (
    await request(app).post(`/api/jobs/${job.id}/pictures`).attach('file', file, 'Slip.png')
  ).body as Picture;
});
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

const path = (rest: string): string => `/api/pictures/${picture.id}${rest}`;
const records = async (): Promise<PictureRecords> =>
  (await request(app).get(path('')).expect(200)).body as PictureRecords;

function clone(layerId: string, x: number, y: number, dx: number, dy: number): Repair {
  return {
    id: randomUUID(),
    layerId,
    position: 0,
    enabled: true,
    site: { kind: 'rectangle', x, y, width: 60, height: 50 },
    width: 10,
    softness: 0,
    flow: 1,
    strength: 1,
    method: { kind: 'clone', donor: shiftDonor(dx, dy), other: null },
    reason: '',
    createdAt: new Date().toISOString(),
  };
}

async function keep(...repairs: Repair[]): Promise<void> {
  const { picture: now } = await records();
  const edits = repairs.map((after) => ({ entity: 'repair', id: after.id, after }));
  await request(app)
    .post(path('/changes'))
    .send({ version: now.version, label: 'Clone', edits })
    .expect(200);
}

describe('proof', () => {
  test('what was copied within sight is told; a change elsewhere measures only what it reaches; a restart keeps all', async () => {
    const none = (await request(app).get(path('/proof')).expect(200)).body as KeptProofAnswer;
    expect(none).toEqual({ proof: null, share: null });
    const layer = (await records()).layers[0]!.id;
    const left = clone(layer, 60, 120, 100, 60);
    const right = { ...clone(layer, 600, 120, 20, 120), position: 1 };
    await keep(left, right);
    const searches = jest.spyOn(services.pool, 'search');
    const dueOf = (): number[] =>
      searches.mock.calls.flatMap(([task]) => ('due' in task ? [...(task.due as number[])] : []));
    const first = (await request(app).post(path('/proof')).expect(200)).body as ProofAnswer;
    expect(dueOf().sort()).toEqual([0, 1]);
    const twice = first.tells.find((t) => t.kind === 'repeat' && t.repair === left.id)!;
    expect([twice.twin!.x - twice.box.x, twice.twin!.y - twice.box.y]).toEqual([100, 60]);

    searches.mockClear();
    const again = (await request(app).post(path('/proof')).expect(200)).body as ProofAnswer;
    expect(dueOf()).toEqual([]);
    expect(again).toEqual(first);

    searches.mockClear();
    await keep({ ...right, softness: 0.4 });
    await request(app).post(path('/proof')).expect(200);
    // The other one lies more than a look away.
    expect(dueOf()).toEqual([1]);
    searches.mockRestore();

    const before = (await request(app).get(path('/proof'))).body as KeptProofAnswer;
    await closeServices(services);
    await begin();
    expect((await request(app).get(path('/proof'))).body).toEqual(before);
    expect(before.proof!.tells.length).toBeGreaterThan(0);
  });

  test('a tell is let stand and told again; limits of the house sift what was measured', async () => {
    const told = async (): Promise<ProofAnswer['tells']> =>
      ((await request(app).get(path('/proof')).expect(200)).body as KeptProofAnswer).proof!.tells;
    const [tell] = (await told()).filter((t) => t.repair !== null && !t.faint);
    const place = { kind: tell!.kind, repair: tell!.repair, box: tell!.box };
    const stood = (t: ProofAnswer['tells'][number]): boolean =>
      t.kind === place.kind && t.repair === place.repair && t.stands;
    await request(app)
      .post(path('/proof/stand'))
      .send({ ...place, stands: true })
      .expect(200);
    expect((await told()).filter(stood).length).toBeGreaterThan(0);
    // It stands through another measuring, as nothing got worse.
    const again = (await request(app).post(path('/proof')).expect(200)).body as ProofAnswer;
    expect(again.tells.some(stood)).toBe(true);
    await request(app)
      .post(path('/proof/stand'))
      .send({ ...place, stands: false })
      .expect(200);
    expect((await told()).some(stood)).toBe(false);
    await request(app)
      .post(path('/proof/stand'))
      .send({ ...place, box: { ...place.box, x: 0, y: 1 }, stands: true })
      .expect(404);

    const usual = (await request(app).get('/api/house/limits').expect(200)).body as TellLimits;
    expect(usual).toEqual(TELL_LIMITS);
    const before = await told();
    const { kind } = before.find((t) => !isBeyond(t.kind, t.value, TELL_RANGES[t.kind][1]))!;
    await request(app)
      .put('/api/house/limits')
      .send({ ...usual, [kind]: TELL_RANGES[kind][1] })
      .expect(200);
    const lax = await told();
    expect(lax.length).toBeLessThan(before.length);
    await request(app).put('/api/house/limits').send(STRICTEST_LIMITS).expect(200);
    const strict = await told();
    expect(strict.length).toBeGreaterThanOrEqual(before.length);
    for (const t of strict) expect(t.limit).toBe(STRICTEST_LIMITS[t.kind]);
    await request(app)
      .put('/api/house/limits')
      .send({ ...usual, tone: 0 })
      .expect(400);
    await request(app).put('/api/house/limits').send(TELL_LIMITS).expect(200);
    expect(await told()).toEqual(before);
  });

  test('what draws the eye is told of the whole picture, where distractions may be taken out', async () => {
    const { original } = (await records()).picture;
    const settings = { policy: 'picture' };
    await request(app).post(path('/survey/settings')).send(settings).expect(200);
    const proofs = services.proofs.find(picture.id)!;
    const pull = {
      kind: 'pull' as const,
      value: 0.8,
      box: { x: 600, y: 20, width: 12, height: 12 },
      outlines: [
        [
          [600, 20],
          [612, 20],
          [612, 32],
        ] as [number, number][],
      ],
    };
    services.proofs.keep(picture.id, {
      ...proofs,
      tells: { ...proofs.tells, picture: { name: original, tells: [pull] } },
    });
    const pulls = async (): Promise<ProofAnswer['tells']> =>
      ((await request(app).get(path('/proof'))).body as KeptProofAnswer).proof!.tells.filter(
        (t) => t.kind === 'pull',
      );
    expect(await pulls()).toEqual([{ ...pull, repair: null, limit: 0.5, stands: false }]);
    const documentary = { policy: 'documentary' };
    await request(app).post(path('/survey/settings')).send(documentary).expect(200);
    expect(await pulls()).toEqual([]);
  });

  test('a repair that is taken away takes its tells along', async () => {
    const { picture: now, repairs } = await records();
    const edits = repairs.map(({ id }) => ({ entity: 'repair', id, after: null }));
    await request(app)
      .post(path('/changes'))
      .send({ version: now.version, label: 'Delete', edits })
      .expect(200);
    const { tells } = (await request(app).post(path('/proof')).expect(200)).body as ProofAnswer;
    expect(tells).toEqual([]);
  });
});

test('frames of the sweep are kept, the newest word on each', async () => {
  const seen = { frame: 1, content: 'abc', state: 'marked' };
  await request(app).post(path('/sweep')).send(seen).expect(200);
  await request(app)
    .post(path('/sweep'))
    .send({ ...seen, state: 'passed' })
    .expect(200);
  await request(app)
    .post(path('/sweep'))
    .send({ ...seen, frame: 0 })
    .expect(200);
  await request(app)
    .post(path('/sweep'))
    .send({ ...seen, state: 'liked' })
    .expect(400);
  const { body } = await request(app).get(path('/sweep')).expect(200);
  expect(body).toEqual({
    frames: [
      { frame: 0, content: 'abc', state: 'marked' },
      { frame: 1, content: 'abc', state: 'passed' },
    ],
  });
});

describe('work', () => {
  const jobNow = async (): Promise<Job> =>
    (await request(app).get(`/api/jobs/${job.id}`).expect(200)).body as Job;

  test('time in the rooms adds up; time for findings is part of it, and becomes the own time', async () => {
    for (const seconds of [20, 40])
      await request(app).post(path('/work')).send({ kind: 'bench', seconds }).expect(200);
    for (const [seconds, count] of [
      [30, 10],
      [10, 1],
      [8, 2],
    ])
      await request(app).post(path('/work')).send({ kind: 'specks', seconds, count }).expect(200);
    expect((await jobNow()).work).toEqual({ spent: 60, remaining: 0 });
    const log = (await request(app).get(path('/work'))).body as WorkLog;
    expect(log.kinds).toEqual({ bench: 60, specks: 48 });
    expect(log.days).toEqual([{ day: new Date().toISOString().slice(0, 10), seconds: 60 }]);
    // Everything that was done above, the newest first.
    expect(log.changes.map((c) => [c.version, c.kind, c.label])).toEqual([
      [3, 'do', 'Delete'],
      [2, 'do', 'Clone'],
      [1, 'do', 'Clone'],
    ]);
    // Medians of 3, 10 and 4 seconds a speck.
    const times = (await request(app).get('/api/house/times')).body as unknown;
    expect(times).toEqual({ specks: { seconds: 4, times: 3 } });
    await request(app).post(path('/work')).send({ kind: 'bench', seconds: -1 }).expect(400);
  });

  test('what the survey leaves open is what remains, by own times where there are any', async () => {
    const finding = {
      id: randomUUID(),
      kind: 'specks',
      box: { x: 10, y: 10, width: 4, height: 4 },
      outlines: [
        [
          [10, 10],
          [14, 10],
          [14, 14],
        ],
      ],
      polarity: 1,
      size: 4,
      extent: 5,
      contrast: 20,
      nearEdge: null,
      score: 0.9,
      advice: { byHand: 6, swept: 0.1, order: 70 },
      by: 'survey',
    };
    const crease = { ...finding, id: randomUUID(), kind: 'creases', advice: { byHand: 120 } };
    const faint = { ...finding, id: randomUUID(), score: 0.2 };
    for (const f of [finding, crease, faint]) services.findings.add(picture.id, f as never);
    expect((await jobNow()).work.remaining).toBe(4 + 120);
    // What somebody has set goes before what was measured and what is usual.
    const setTimes = (times: House['times']) =>
      request(app)
        .put('/api/house')
        .send({ ...FIRST_HOUSE, times });
    await setTimes({ specks: 9, creases: 50 }).expect(200);
    expect((await jobNow()).work.remaining).toBe(9 + 50);
    await setTimes({ specks: 0 }).expect(400);
    await setTimes({}).expect(200);
    expect((await jobNow()).work.remaining).toBe(4 + 120);
    services.findings.dismiss(picture.id, [crease.id], true);
    expect((await jobNow()).work.remaining).toBe(4);
  });

  test('the house keeps its hours and rate, and refuses a day of thirty hours', async () => {
    expect((await request(app).get('/api/house')).body).toEqual(FIRST_HOUSE);
    const next = { ...FIRST_HOUSE, hours: 4, rate: 45 };
    await request(app).put('/api/house').send(next).expect(200);
    const refused = await request(app)
      .put('/api/house')
      .send({ ...next, hours: 30 })
      .expect(400);
    expect((refused.body as { message: string }).message).toMatch(/24 hours/);
    expect((await request(app).get('/api/house')).body).toEqual(next);
  });
});

test('recipes are kept by name, the newest of a name', async () => {
  const order = { format: 'jpeg', quality: 85, finished: true, longest: 1600, rule: '{picture}' };
  const send = (name: string, quality: number) =>
    request(app)
      .post('/api/house/recipes')
      .send({ name, order: { ...order, quality } });
  await send('For the web', 85).expect(201);
  await send('For the web', 80).expect(201);
  await send('', 80).expect(400);
  const { recipes } = (await request(app).get('/api/house/recipes')).body as {
    recipes: { id: string; name: string; order: { quality: number } }[];
  };
  expect(recipes.map((r) => [r.name, r.order.quality])).toEqual([['For the web', 80]]);
  await request(app).delete(`/api/house/recipes/${recipes[0]!.id}`).expect(200);
  expect((await request(app).get('/api/house/recipes')).body).toEqual({ recipes: [] });
});

test('a job is put away, doubled, deleted and taken back', async () => {
  const list = async (): Promise<Job[]> => (await request(app).get('/api/jobs')).body as Job[];
  const address = `/api/jobs/${job.id}`;
  await request(app).post(`${address}/archive`).send({ archived: true }).expect(200);
  expect((await list())[0]).toMatchObject({ id: job.id, archived: true });
  const twin = (await request(app).post(`${address}/duplicate`).expect(201)).body as Job;
  expect(twin).toMatchObject({ title: 'Slip road, again', archived: false, state: 'new' });
  expect(twin.pictures[0]).toMatchObject({ name: 'Slip.png', repairs: 0, version: 0 });
  expect(twin.pictures[0]!.id).not.toBe(picture.id);
  await request(app).delete(address).expect(200);
  expect((await list()).map((j) => j.id)).toEqual([twin.id]);
  await request(app).get(address).expect(404);
  await request(app).post(`${address}/restore`).expect(200);
  expect((await list()).map((j) => j.id).sort()).toEqual([job.id, twin.id].sort());
});
