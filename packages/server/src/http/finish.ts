import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { UserProblem } from '@tersum/codec';
import { frameOf, intersect, isEmpty } from '@tersum/core';
import {
  DensitySchema,
  LevelsQuerySchema,
  MOST_PART,
  PartQuerySchema,
  SplitSchema,
  WidenQuerySchema,
} from '@tersum/document';
import type { PartQuery } from '@tersum/document';
import { Router } from 'express';
import { withoutWidening } from '../render/shown.js';
import type { Services } from '../services.js';
import { endedBy } from './ended.js';
import { bodyOf, queryOf } from './problems.js';

/** What finishing a picture needs: its mended pixels in parts, and what can be measured of it. */
export function finishRoutes(services: Services): Router {
  const { records, renderer, findings, originals, pool, intake, folders } = services;
  const router = Router();
  const originalOf = async (id: string) =>
    (await originals.get(records.picture(id).original)).raster;

  const stateOf = async (id: string, state: PartQuery['state']) => {
    if (state === 'received') return { original: await originalOf(id), patches: [] };
    const shown = await renderer.newest(id);
    if (state === 'unwidened') return withoutWidening(shown);
    return { original: shown.picture.raster, patches: shown.patches };
  };

  /** Samples of 16 bits, little-endian, 1 or 3 a pixel; the size stands in the headers. */
  router.get('/:id/part', async (req, res) => {
    const { factor, state, ...rect } = queryOf(PartQuerySchema, req);
    if ((rect.width / factor) * (rect.height / factor) > MOST_PART)
      throw new UserProblem(400, 'This part is too large to be sent at once.');
    const { id } = req.params;
    const shown = await stateOf(id, state);
    if (isEmpty(intersect(rect, frameOf(shown.original))))
      throw new UserProblem(404, 'There is no such part of the picture.');
    const part = await pool.run({ kind: 'part', ...shown, rect, factor });
    const { data, width, height, channels } = part;
    res
      .set('Cache-Control', 'no-store')
      .set('X-Part', `${width} ${height} ${channels}`)
      .type('application/octet-stream')
      .send(Buffer.from(data.buffer, data.byteOffset, data.byteLength));
  });

  router.post('/:id/tilt', async (req, res) => {
    res.json(await pool.run({ kind: 'tilt', original: await originalOf(req.params.id) }));
  });

  /** What blocks of a compression the picture shows as received. */
  router.post('/:id/blocks', async (req, res) => {
    res.json({
      blocks: await pool.run({ kind: 'blocks', original: await originalOf(req.params.id) }),
    });
  });

  router.post('/:id/detail', async (req, res) => {
    res.json(await pool.run({ kind: 'detail', original: await originalOf(req.params.id) }));
  });

  /** Says how many pixels an inch of the print has, where the file does not know or is wrong. */
  router.put('/:id/ppi', (req, res) => {
    records.setDensity(req.params.id, bodyOf(DensitySchema, req).ppi);
    res.json(records.describe(req.params.id));
  });

  router.post('/:id/prints', async (req, res) => {
    const original = await originalOf(req.params.id);
    res.json({ prints: await pool.run({ kind: 'prints', original }) });
  });

  router.post('/:id/fade', async (req, res) => {
    const { picture, patches } = await renderer.newest(req.params.id);
    const { frames } = records.records(req.params.id);
    const original = picture.raster;
    res.json({ acts: await pool.run({ kind: 'fade', original, patches, frames }) });
  });

  router.post('/:id/levels', async (req, res) => {
    const { steps, share } = bodyOf(LevelsQuerySchema, req);
    const { picture, patches } = await renderer.newest(req.params.id);
    const { frames } = records.records(req.params.id);
    const finishing = { tones: steps, frames, size: records.picture(req.params.id) };
    const original = picture.raster;
    res.json(await pool.run({ kind: 'levels', original, patches, finishing, share }));
  });

  // What the picture is of, and what lies beyond its backdrop, as it is without its widening.
  for (const kind of ['subject', 'backdrop'] as const)
    router.post(`/:id/${kind}`, async (req, res) => {
      const below = withoutWidening(await renderer.newest(req.params.id));
      const { subject: marked } = findings.survey(req.params.id).settings;
      res.json({ outlines: await pool.run({ kind, ...below, marked }) });
    });

  router.post('/:id/widen', async (req, res) => {
    const { sides } = bodyOf(WidenQuerySchema, req);
    const below = withoutWidening(await renderer.newest(req.params.id));
    const { subject } = findings.survey(req.params.id).settings;
    const task = { kind: 'widen', ...below, sides, subject } as const;
    res.json(await pool.search<'widen'>(task, { signal: endedBy(req, res) }));
  });

  router.post('/:id/channels', async (req, res) => {
    res.json({
      choice: await pool.run({ kind: 'channels', original: await originalOf(req.params.id) }),
    });
  });

  /** Makes every print a picture of its own in the same job. */
  router.post('/:id/split', async (req, res) => {
    const { quads } = bodyOf(SplitSchema, req);
    const row = records.picture(req.params.id);
    const original = await originalOf(req.params.id);
    const pictures = [];
    for (const [k, quad] of quads.entries()) {
      const to = join(folders.incoming, randomUUID());
      const source = originals.pathOf(row.original);
      await pool.run({ kind: 'cut', source, original, quad, ppi: row.ppi, to });
      const name = `${row.name.replace(/\.[^.]*$/, '')} ${k + 1}.tif`;
      pictures.push(await intake.take(row.jobId, to, name));
    }
    res.status(201).json({ pictures });
  });
  return router;
}
