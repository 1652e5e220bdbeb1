import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { encode } from '@tersum/codec';
import { createRaster } from '@tersum/core';
import type { Job, Picture, PictureRecords } from '@tersum/document';
import type { Express } from 'express';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import type { Operation } from './operations.js';
import { OPERATIONS } from './operations.js';
import { beginServer } from './test-server.js';

let folder: string;
let services: Services;
let app: Express;
let job: Job;
let picture: Picture;
let before: PictureRecords;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'wrong-'));
  ({ services, app } = await beginServer(folder));
  const draft = { title: 'Slip road', client: 'Ottilie', due: null, notes: '', state: 'new' };
  job = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
  const grey = createRaster(64, 48, 3);
  grey.data.fill(120);
  const file = await encode(grey, 'png', 90, { icc: null, exif: null, ppi: 300 });
  picture = (
    await request(app).post(`/api/jobs/${job.id}/pictures`).attach('file', file, 'Grey.png')
  ).body as Picture;
  before = (await request(app).get(`/api/pictures/${picture.id}`)).body as PictureRecords;
});
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

const NOBODY = '00000000-0000-4000-8000-000000000000';
const NAMES = [NOBODY, 'x', '%00', '..%2F..%2Fetc%2Fpasswd', '9'.repeat(300)];
const BODIES: readonly unknown[] = [
  {},
  [],
  [null],
  'text',
  { version: 'one', edits: 7 },
  { repair: null, ids: [1], steps: [{}], quads: [[0]], sides: { left: -5 } },
  { version: -1, label: 'x', edits: [{ entity: 'repair', id: NOBODY, after: {} }] },
  JSON.parse('{"__proto__": {"isAdmin": true}, "constructor": {"prototype": 1}}'),
];

/** Whoever subscribes to what happens is not answered to an end. */
const isStream = ({ path }: Operation): boolean => path.endsWith('/events');
const shown = ({ method, path }: Operation): string => `${method} ${path}`;
const address = ({ path }: Operation, name: string): string =>
  `/api${path.replace(/:[a-zA-Z]+/g, name)}`;
const ask = (o: Operation, at: string) => request(app)[o.method](at);

/** Every refusal is a sentence, and none of them is the server's own failing. */
function expectRefusal({ status, body }: request.Response, asked: string): void {
  if (status < 400) return;
  expect([asked, status]).toEqual([asked, expect.any(Number)]);
  if (status >= 500) throw new Error(`${asked} failed: ${JSON.stringify(body)}`);
  expect([asked, typeof body.message]).toEqual([asked, 'string']);
  expect(body.message.length).toBeGreaterThan(8);
}

const named = OPERATIONS.filter((o) => o.path.includes(':') && !isStream(o));
test.each(named.map((o) => [shown(o), o] as const))(
  '%s of what does not exist is refused in a sentence',
  async (_, operation) => {
    for (const name of NAMES) {
      const answer = await ask(operation, address(operation, name)).send({});
      expectRefusal(answer, `${shown(operation)} with ${name.slice(0, 40)}`);
    }
  },
);

const told = OPERATIONS.filter((o) => o.body && !isStream(o));
test.each(told.map((o) => [shown(o), o] as const))(
  '%s with a wrong body is refused in a sentence',
  async (_, operation) => {
    const name = operation.path.startsWith('/jobs') ? job.id : picture.id;
    const at = `/api${operation.path.replace(':id', name).replace(/:[a-zA-Z]+/g, NOBODY)}`;
    for (const body of BODIES) {
      const answer = await ask(operation, at).send(body as object);
      expectRefusal(answer, `${shown(operation)} with ${JSON.stringify(body)}`);
    }
    const broken = await ask(operation, at).type('json').send('{"half": ');
    expect(broken.status).toBe(400);
    expect(broken.body.message).toMatch(/could not be read/);
  },
);

describe('a picture that is sent', () => {
  const png = (): Promise<Uint8Array> => {
    const small = createRaster(9, 7, 3);
    small.data.fill(90);
    return encode(small, 'png', 90, { icc: null, exif: null, ppi: null });
  };
  const post = () => request(app).post(`/api/jobs/${other.id}/pictures`);
  let other: Job;
  beforeAll(async () => {
    const draft = { title: 'Sent', client: 'Ottilie', due: null, notes: '', state: 'new' };
    other = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
  });

  test.each([
    ['no form at all', () => post().send({})],
    ['a form without a file', () => post().field('name', 'value')],
    [
      'a file in another field',
      async () => post().attach('picture', Buffer.from(await png()), 'a.png'),
    ],
    ['an empty file', () => post().attach('file', Buffer.alloc(0), 'a.png')],
    ['words', () => post().attach('file', Buffer.from('only words'), 'a.png')],
    ['half a form', () => post().type('multipart/form-data; boundary=x').send('--x\r\nContent-')],
  ] as const)('as %s is refused in a sentence', async (_, send) => {
    const answer = await send();
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expectRefusal(answer, _);
  });

  test.each([
    ['../../quay.png', /quay\.png$/],
    ['quay\u0000\u0007.png', /png$/],
    ['Mole früh 夜.png', /^Mole früh 夜\.png$/],
    [`${'long'.repeat(120)}.png`, /^longlong/],
  ])('under the name %j keeps a name that can be shown', async (name, shown) => {
    const answer = await post().attach('file', Buffer.from(await png()), name);
    expectRefusal(answer, name);
    if (answer.status >= 400) return;
    const taken = answer.body as Picture;
    expect(taken.name).toMatch(shown);
    // eslint-disable-next-line no-control-regex -- it is what must not be there
    expect(taken.name).not.toMatch(/[\u0000-\u001f/\\]/);
    expect(taken.name.length).toBeLessThanOrEqual(200);
  });
});

test('no name reaches a file beside those that were made', async () => {
  const beside = join(folder, 'beside.txt');
  await writeFile(beside, 'kept');
  await request(app).delete('/api/exports/..%2Fbeside.txt');
  expect(await readFile(beside, 'utf8')).toBe('kept');
  const file = await request(app).get('/api/exports/..%2Fbeside.txt/file');
  expect(file.status).toBe(404);
});

test.each([
  ['larger than can be rendered', 20_000, /Up to 200 megapixels/],
  ['nothing at all', -20_000, /Nothing of the picture would be left/],
])(
  'new sides that would make the picture %s are refused, kept or tried out',
  async (_, side, why) => {
    const layer = before.layers[0]!;
    const sides = { left: side, right: side, top: side, bottom: side };
    const after = {
      id: NOBODY,
      layerId: layer.id,
      position: 1,
      enabled: true,
      site: { kind: 'rectangle', x: 0, y: 0, width: 64, height: 48 },
      width: 1,
      softness: 0,
      flow: 1,
      strength: 1,
      method: { kind: 'stretch', sides, kept: [] },
      reason: '',
      createdAt: '2026-11-02T09:00:00.000Z',
    };
    const edits = [{ entity: 'repair', id: NOBODY, after }];
    for (const to of ['changes', 'preview']) {
      const asked = { version: before.picture.version, label: 'Widen', edits };
      const answer = await request(app).post(`/api/pictures/${picture.id}/${to}`).send(asked);
      expect([to, answer.status]).toEqual([to, 422]);
      expect(answer.body.message).toMatch(why);
    }
  },
);

test('after all of that the picture is as it was', async () => {
  const { body } = await request(app).get(`/api/pictures/${picture.id}`).expect(200);
  expect(body).toEqual(before);
  expect(({} as { isAdmin?: boolean }).isAdmin).toBeUndefined();
  await request(app).get('/api/health').expect(200);
});
