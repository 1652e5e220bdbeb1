import { encodeJpeg, UserProblem } from '@tersum/codec';
import { crop } from '@tersum/core';
import { canvasOfRecords } from '@tersum/document';
import type { Request, Response } from 'express';
import { Router } from 'express';
import { regionOf, sizeOf } from '../iiif/request.js';
import type { Services } from '../services.js';

/** Tiles that viewers are told to ask for, px, and how often they are halved. */
const TILE = 512;
const LOCAL = /^https?:\/\/(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/**
 * Pictures as the IIIF Image API 3.0 gives them, level 1: by their id as repaired, with "-received" after it as received.
 * Viewers on this machine may read them from other pages; nobody else may.
 */
export function iiifRoutes({ records, renderer, originals }: Services): Router {
  const router = Router();
  router.use((req, res, next) => {
    const { origin } = req.headers;
    if (origin && LOCAL.test(origin)) res.set('Access-Control-Allow-Origin', origin);
    res.set('Cross-Origin-Resource-Policy', 'cross-origin').set('Vary', 'Origin');
    next();
  });

  const nameOf = (id: string): { id: string; received: boolean } => ({
    id: id.replace(/-received$/, ''),
    received: id.endsWith('-received'),
  });

  router.get('/:id', (req: Request<{ id: string }>, res: Response) => {
    res.redirect(303, `/iiif/${encodeURIComponent(req.params.id)}/info.json`);
  });

  router.get('/:id/info.json', (req, res) => {
    const { id, received } = nameOf(req.params.id);
    const picture = records.picture(id);
    const { width, height } = received ? picture : canvasOfRecords(picture, records.records(id));
    const factors = [1];
    while (TILE * factors.at(-1)! < Math.max(width, height)) factors.push(2 * factors.at(-1)!);
    const context = 'http://iiif.io/api/image/3/context.json';
    res.type(`application/ld+json;profile="${context}"`).send(
      JSON.stringify({
        '@context': context,
        id: `${req.protocol}://${req.headers.host}/iiif/${req.params.id}`,
        type: 'ImageService3',
        protocol: 'http://iiif.io/api/image',
        profile: 'level1',
        width,
        height,
        sizes: factors.map((f) => ({
          width: Math.max(1, Math.round(width / f)),
          height: Math.max(1, Math.round(height / f)),
        })),
        tiles: [{ width: TILE, height: TILE, scaleFactors: factors }],
      }),
    );
  });

  router.get('/:id/:region/:size/:rotation/:file', async (req, res) => {
    const { rotation, file } = req.params;
    if (rotation !== '0') throw new UserProblem(400, 'Pictures are given upright: rotation 0.');
    if (file !== 'default.jpg' && file !== 'color.jpg')
      throw new UserProblem(400, 'Pictures are given as default.jpg.');
    const { id, received } = nameOf(req.params.id);
    const { original } = records.picture(id);
    const { raster, pyramid } = received
      ? await originals.get(original)
      : (await renderer.current(id)).picture;
    const region = regionOf(req.params.region, raster);
    const size = sizeOf(req.params.size, region);
    const reduced = Math.min(region.width / size.width, region.height / size.height);
    const level = Math.min(pyramid.length - 1, Math.floor(Math.log2(reduced) + 1e-9));
    const whole = received ? pyramid[level]! : await renderer.level(id, level);
    const [fx, fy] = [whole.width / raster.width, whole.height / raster.height];
    const x = Math.min(whole.width - 1, Math.round(region.x * fx));
    const y = Math.min(whole.height - 1, Math.round(region.y * fy));
    const part = crop(whole, {
      x,
      y,
      width: Math.max(1, Math.min(whole.width - x, Math.round(region.width * fx))),
      height: Math.max(1, Math.min(whole.height - y, Math.round(region.height * fy))),
    });
    res
      .set('Link', '<http://iiif.io/api/image/3/level1.json>;rel="profile"')
      .type('jpeg')
      .send(await encodeJpeg(part, size));
  });
  return router;
}
