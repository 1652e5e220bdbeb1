import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { decode, encode } from '@tersum/codec';
import { createRaster } from '@tersum/core';
import type { Job, Picture } from '@tersum/document';
import { writeFile } from 'node:fs/promises';
import type { Express } from 'express';
import request from 'supertest';
import type { Services } from '../services.js';
import { closeServices } from '../services.js';
import { OPERATIONS } from './operations.js';
import { beginServer } from './test-server.js';

let folder: string;
let services: Services;
let app: Express;
let picture: Picture;

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'open-'));
  ({ services, app } = await beginServer(folder));
  const draft = { title: 'Mole', client: '', due: null, notes: '', state: 'new' };
  const job = (await request(app).post('/api/jobs').send(draft).expect(201)).body as Job;
  const raster = createRaster(300, 200, 3);
  for (let p = 0; p < 60_000; p++) raster.data.set([p % 300 < 150 ? 40 : 200, 100, 60], 3 * p);
  const file = await encode(raster, 'png', 90, { icc: null, exif: null, ppi: null });
  picture = (
    await request(app).post(`/api/jobs/${job.id}/pictures`).attach('file', file, 'Mole.png')
  ).body as Picture;
});
afterAll(async () => {
  await closeServices(services);
  await rm(folder, { recursive: true, force: true });
});

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Record<string, boolean> };
}

/** Every route that the routers of a kind of thing answer. */
function routesOf(make: (s: Services) => unknown, under: string): string[] {
  const { stack } = make(services) as { stack: Layer[] };
  return stack.flatMap(({ route }) =>
    route
      ? Object.keys(route.methods).map(
          (m) => `${m} ${under}${route.path === '/' ? '' : route.path}`,
        )
      : [],
  );
}

describe('OpenAPI', () => {
  test('every route there is is described, and nothing else', async () => {
    const [jobs, pictures, fills, survey, finish, proof, house] = await Promise.all([
      import('./jobs.js'),
      import('./pictures.js'),
      import('./fills.js'),
      import('./survey.js'),
      import('./finish.js'),
      import('./proof.js'),
      import('./house.js'),
    ]);
    const routes = [
      ...routesOf(jobs.jobRoutes, '/jobs'),
      ...[
        pictures.pictureRoutes,
        fills.fillRoutes,
        survey.surveyRoutes,
        finish.finishRoutes,
        proof.proofRoutes,
      ].flatMap((r) => routesOf(r, '/pictures')),
      ...routesOf(pictures.exportRoutes, '/exports'),
      ...routesOf(house.houseRoutes, '/house'),
      'get /health',
      'get /schemas/:name',
    ];
    expect(OPERATIONS.map((o) => `${o.method} ${o.path}`).sort()).toEqual(routes.sort());
  });

  test('it is OpenAPI 3.1 with JSON Schemas of what comes and goes', async () => {
    const { body } = await request(app).get('/api/openapi.json').expect(200);
    expect(body.openapi).toBe('3.1.0');
    const post = body.paths['/api/jobs'].post;
    expect(post.requestBody.content['application/json'].schema.required).toContain('title');
    expect(post.responses['201'].content['application/json'].schema.properties.pictures.type).toBe(
      'array',
    );
    const one = body.paths['/api/jobs/{id}'].get;
    expect(one.parameters).toEqual([
      { name: 'id', in: 'path', required: true, schema: { type: 'string' } },
    ]);
    expect(body.paths['/api/pictures/{id}/report.pdf'].get.responses['200'].content).toEqual({
      'application/pdf': {},
    });
  });
});

describe('IIIF Image API 3.0, level 1', () => {
  test('the information names size, tiles and level', async () => {
    const redirect = await request(app).get(`/iiif/${picture.id}`).expect(303);
    expect(redirect.headers.location).toBe(`/iiif/${picture.id}/info.json`);
    const { text, type } = await request(app).get(`/iiif/${picture.id}/info.json`).expect(200);
    expect(type).toBe('application/ld+json');
    const info = JSON.parse(text) as Record<string, unknown>;
    expect(info).toMatchObject({
      '@context': 'http://iiif.io/api/image/3/context.json',
      type: 'ImageService3',
      protocol: 'http://iiif.io/api/image',
      profile: 'level1',
      width: 300,
      height: 200,
    });
    expect(info.id).toMatch(new RegExp(`^http://.*/iiif/${picture.id}$`));
  });

  test('a region is cut, sized and given as JPEG, as received and as repaired', async () => {
    for (const id of [picture.id, `${picture.id}-received`]) {
      const answer = await request(app)
        .get(`/iiif/${id}/100,50,100,100/50,/0/default.jpg`)
        .responseType('blob')
        .expect(200);
      expect(answer.type).toBe('image/jpeg');
      const path = join(folder, 'part.jpg');
      await writeFile(path, answer.body as Buffer);
      const { raster } = await decode(path);
      expect([raster.width, raster.height]).toEqual([50, 50]);
      // The step at 150 px lies in the middle of the part.
      expect(raster.data[3 * (25 * 50 + 10)]).toBeLessThan(60);
      expect(raster.data[3 * (25 * 50 + 40)]).toBeGreaterThan(180);
    }
  });

  test('what level 1 does not know is refused; pages from elsewhere may not read', async () => {
    await request(app).get(`/iiif/${picture.id}/full/max/90/default.jpg`).expect(400);
    await request(app).get(`/iiif/${picture.id}/full/400,/0/default.jpg`).expect(400);
    await request(app).get(`/iiif/${picture.id}/full/max/0/default.png`).expect(400);
    const far = await request(app)
      .get(`/iiif/${picture.id}/info.json`)
      .set('Origin', 'https://example.org');
    expect(far.headers['access-control-allow-origin']).toBeUndefined();
    const near = await request(app)
      .get(`/iiif/${picture.id}/info.json`)
      .set('Origin', 'http://localhost:9000');
    expect(near.headers['access-control-allow-origin']).toBe('http://localhost:9000');
  });
});
