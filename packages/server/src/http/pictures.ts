import type { Raster } from '@tersum/core';
import { crop } from '@tersum/core';
import type { Repair, TilePlace } from '@tersum/document';
import {
  KnownLineSchema,
  LineQuerySchema,
  RegionQuerySchema,
  SiteQuerySchema,
  ChangeSchema,
  DonorQuerySchema,
  otherMends,
  ExportSchema,
  PreviewSchema,
  tileRect,
  VersionSchema,
} from '@tersum/document';
import { Router } from 'express';
import { z } from 'zod';
import { encodeThumb, encodeTile, UserProblem } from '@tersum/codec';
import { groundOf } from '../render/shown.js';
import type { Services } from '../services.js';
import { bodyOf, paramsOf } from './problems.js';

const FOREVER = 'public, max-age=31536000, immutable';
const PlaceSchema = z.object({
  level: z.coerce.number().int().min(0).max(20),
  column: z.coerce.number().int().min(0),
  row: z.coerce.number().int().min(0),
});

/** One picture: its records, its pixels, its changes. */
export function pictureRoutes(services: Services): Router {
  const { records, renderer, originals, bases, pool, exports, reports } = services;
  const router = Router();

  router.get('/:id', (req, res) => void res.json(records.describe(req.params.id)));

  router.post('/:id/changes', (req, res) => {
    const change = bodyOf(ChangeSchema, req);
    renderer.anticipate(req.params.id, change);
    const after = records.change(req.params.id, change);
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

  /** What a search around a repair works from: the picture below it, and all other repairs. */
  const around = async (id: string, repair: Repair) => {
    const shown = await renderer.current(id);
    const active = records.records(id).repairs.filter((r) => r.enabled);
    const others = otherMends(active, repair.id);
    return { repair, ...groundOf(shown, repair.id), others };
  };

  router.post('/:id/donors', async (req, res) => {
    const { repair, wishes } = bodyOf(DonorQuerySchema, req);
    const task = await around(req.params.id, repair);
    res.json({ offers: await pool.run({ kind: 'donors', ...task, wishes }) });
  });

  router.post('/:id/twins', async (req, res) => {
    const { repair } = bodyOf(SiteQuerySchema, req);
    const task = await around(req.params.id, repair);
    res.json({ twins: await pool.run({ kind: 'twins', ...task }) });
  });

  router.post('/:id/advice', async (req, res) => {
    const { repair } = bodyOf(SiteQuerySchema, req);
    const { others: _, ...task } = await around(req.params.id, repair);
    res.json(await pool.run({ kind: 'advice', ...task }));
  });

  router.post('/:id/region', async (req, res) => {
    const { scribble } = bodyOf(RegionQuerySchema, req);
    const { raster } = (await bases.get(req.params.id)).picture;
    res.json({ outline: await pool.run({ kind: 'region', original: raster, scribble }) });
  });

  router.post('/:id/line', async (req, res) => {
    const { from, to } = bodyOf(LineQuerySchema, req);
    const { raster } = (await bases.get(req.params.id)).picture;
    res.json({ line: await pool.run({ kind: 'line', original: raster, from, to }) });
  });

  router.post('/:id/line/ends', async (req, res) => {
    const line = bodyOf(KnownLineSchema, req);
    const { raster } = (await bases.get(req.params.id)).picture;
    res.json(await pool.run({ kind: 'ends', original: raster, line }));
  });

  router.get('/:id/view', async (req, res) => {
    res.json((await renderer.newest(req.params.id)).view);
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

  const originalTile = async (id: string, place: TilePlace): Promise<Raster> => {
    const { raster, pyramid } = await originals.get(records.picture(id).original);
    const level = pyramid[place.level];
    const rect = level && tileRect(raster, place);
    if (!level || !rect?.width) throw new UserProblem(404, 'There is no such part of the picture.');
    return crop(level, rect);
  };

  router.get('/:id/tiles/:level/:column/:row/:key', async (req, res) => {
    const { id, key } = req.params;
    const place = paramsOf(PlaceSchema, req);
    renderer.seen(id, place);
    const tile =
      key === 'original' ? await originalTile(id, place) : await renderer.tile(id, place, key);
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

  router.get('/:id/report.json', async (req, res) => {
    res.json(await reports.report(req.params.id));
  });
  router.get('/:id/report.pdf', async (req, res) => {
    const pdf = await reports.reportPdf(req.params.id);
    res.type('pdf').send(Buffer.from(pdf));
  });

  router.get('/:id/report.html', async (req, res) => {
    const page = await reports.reportHtml(req.params.id);
    res.type('html').send(page);
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
  router.delete('/:id', async (req, res) => {
    await exports.stop(req.params.id);
    res.json({});
  });
  router.get('/:id/file', (req, res) => {
    const status = exports.status(req.params.id);
    if (status.state !== 'ready') throw new UserProblem(409, 'This export is not ready yet.');
    res.download(exports.pathOf(status.id), status.fileName);
  });
  return router;
}
