import { crop } from '@tersum/core';
import {
  LineQuerySchema,
  ChangeSchema,
  DonorQuerySchema,
  ExportSchema,
  PreviewSchema,
  tileRect,
  VersionSchema,
} from '@tersum/document';
import { Router } from 'express';
import { z } from 'zod';
import { encodeThumb, encodeTile, UserProblem } from '@tersum/codec';
import type { Services } from '../services.js';
import { bodyOf } from './problems.js';

const FOREVER = 'public, max-age=31536000, immutable';
const PlaceSchema = z.object({
  level: z.coerce.number().int().min(0).max(20),
  column: z.coerce.number().int().min(0),
  row: z.coerce.number().int().min(0),
});

/** One picture: its records, its pixels, its changes. */
export function pictureRoutes(services: Services): Router {
  const { records, renderer, originals, pool, exports } = services;
  const router = Router();

  router.get('/:id', (req, res) => void res.json(records.describe(req.params.id)));

  router.post('/:id/changes', (req, res) => {
    const after = records.change(req.params.id, bodyOf(ChangeSchema, req));
    renderer.changed(req.params.id);
    res.json(after);
  });
  for (const move of ['undo', 'redo'] as const)
    router.post(`/:id/${move}`, (req, res) => {
      const after = records[move](req.params.id, bodyOf(VersionSchema, req).version);
      renderer.changed(req.params.id);
      res.json(after);
    });

  router.post('/:id/preview', async (req, res) => {
    const { version, edits } = bodyOf(PreviewSchema, req);
    const gone = new AbortController();
    res.on('close', () => gone.abort());
    res.json(await renderer.preview(req.params.id, version, edits, gone.signal));
  });

  router.post('/:id/donor', async (req, res) => {
    const { repair } = bodyOf(DonorQuerySchema, req);
    const { picture, patches } = await renderer.current(req.params.id);
    const others = records
      .records(req.params.id)
      .repairs.filter((r) => r.id !== repair.id && r.enabled);
    const original = picture.raster;
    res.json({
      donor: await pool.run({ kind: 'donor', repair, original, below: patches, others }),
    });
  });

  router.post('/:id/line', async (req, res) => {
    const { from, to } = bodyOf(LineQuerySchema, req);
    const { raster } = await originals.get(records.picture(req.params.id).original);
    res.json({ line: await pool.run({ kind: 'line', original: raster, from, to }) });
  });

  router.get('/:id/view', async (req, res) => {
    res.json((await renderer.current(req.params.id)).view);
  });

  router.get('/:id/events', (req, res) => {
    const { id } = req.params;
    records.picture(id);
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      Connection: 'keep-alive',
    });
    res.write(': open\n\n');
    const stop = renderer.subscribe(id, (event) => res.write(`data: ${JSON.stringify(event)}\n\n`));
    const beat = setInterval(() => res.write(': still here\n\n'), 20_000);
    res.on('close', () => {
      stop();
      clearInterval(beat);
    });
  });

  router.get('/:id/tiles/:level/:column/:row/:key', async (req, res) => {
    const { id, key } = req.params;
    const place = PlaceSchema.parse(req.params);
    const picture = await originals.get(records.picture(id).original);
    const rect = place.level < picture.pyramid.length ? tileRect(picture.raster, place) : null;
    if (!rect?.width) throw new UserProblem(404, 'There is no such part of the picture.');
    const tile =
      key === 'original'
        ? crop(picture.pyramid[place.level]!, rect)
        : await renderer.tile(id, place, key);
    if (!tile) throw new UserProblem(404, 'This state of the picture is not shown any more.');
    res.set('Cache-Control', FOREVER).type('image/bmp').send(encodeTile(tile));
  });

  router.get('/:id/thumb', async (req, res) => {
    const { id } = req.params;
    const state = z.enum(['original', 'repaired']).catch('repaired').parse(req.query.state);
    const small = state === 'original' ? await renderer.farOriginal(id) : await renderer.far(id);
    res
      .set('Cache-Control', FOREVER)
      .type('jpeg')
      .send(await encodeThumb(small, 480));
  });

  router.post('/:id/exports', (req, res) => {
    res.status(202).json(exports.begin(req.params.id, bodyOf(ExportSchema, req)));
  });
  return router;
}

/** Files that exports made. */
export function exportRoutes({ exports }: Services): Router {
  const router = Router();
  router.get('/:id', (req, res) => void res.json(exports.status(req.params.id)));
  router.get('/:id/file', (req, res) => {
    const status = exports.status(req.params.id);
    if (status.state !== 'ready') throw new UserProblem(409, 'This export is not ready yet.');
    res.download(exports.pathOf(status.id), status.fileName);
  });
  return router;
}
