import { randomUUID } from 'node:crypto';
import { FILL_VARIANTS, tellScore } from '@tersum/core';
import type { FillPlace, Repair, VariantOffer } from '@tersum/document';
import {
  GuideQuerySchema,
  otherMends,
  SiteQuerySchema,
  VariantQuerySchema,
  variantOf,
} from '@tersum/document';
import { Router } from 'express';
import { UserProblem } from '@tersum/codec';
import { unmended } from '../render/damage.js';
import { groundOf } from '../render/shown.js';
import type { Services } from '../services.js';
import { endedBy } from './ended.js';
import { bodyOf } from './problems.js';

/** What is asked about a fill: variants, grounds, guides, portions, confidence. */
export function fillRoutes({ records, renderer, findings, pool }: Services): Router {
  const router = Router();

  const placeOf = async (id: string, repair: Repair): Promise<FillPlace> => {
    const shown = await renderer.current(id);
    const active = records.records(id).repairs.filter((r) => r.enabled);
    const others = otherMends(active, repair.id);
    const at = shown.owners.indexOf(repair.id);
    const after = new Set(at < 0 ? [] : shown.owners.slice(at + 1));
    return {
      repair,
      ...groundOf(shown, repair.id),
      others,
      later: others.filter((r) => after.has(r.id)),
      damage: unmended(records, findings, id, repair),
    };
  };

  router.post('/:id/variants', async (req, res) => {
    const { repair, from } = bodyOf(VariantQuerySchema, req);
    const { method } = repair;
    if (method.kind !== 'fill') throw new UserProblem(400, 'Only fills have variants.');
    const place = await placeOf(req.params.id, repair);
    const gone = endedBy(req, res);
    const wanted = FILL_VARIANTS.map(({ name }, k) =>
      variantOf(repair, randomUUID(), method.seed + from + k, name),
    );
    const variants = await Promise.all(
      wanted.map(async (variant): Promise<VariantOffer> => {
        const { map, figures } = await pool.search<'variant'>(
          { kind: 'variant', ...place, repair: variant },
          { signal: gone },
        );
        if (variant.method.kind !== 'fill') throw new Error('only fills have variants');
        const { search, seed, lean } = variant.method;
        await renderer.keepSearch(search, map, { ...place, repair: variant });
        return { search, seed, lean, figures, score: tellScore(figures) };
      }),
    );
    res.json({ variants: variants.sort((a, b) => a.score - b.score) });
  });

  router.post('/:id/grounds', async (req, res) => {
    const place = await placeOf(req.params.id, bodyOf(SiteQuerySchema, req).repair);
    res.json({ grounds: await pool.run({ kind: 'grounds', ...place }) });
  });

  router.post('/:id/guides', async (req, res) => {
    const { repair, sure } = bodyOf(GuideQuerySchema, req);
    const place = await placeOf(req.params.id, repair);
    res.json({ guides: await pool.run({ kind: 'guides', sure, ...place }) });
  });

  router.post('/:id/portions', async (req, res) => {
    const place = await placeOf(req.params.id, bodyOf(SiteQuerySchema, req).repair);
    res.json({ portions: await pool.run({ kind: 'portions', ...place }) });
  });

  router.get('/:id/searches/:search/confidence', async (req, res) => {
    const found = await renderer.foundSearch(req.params.search);
    if (!found) throw new UserProblem(404, 'This fill has not been computed yet.');
    const { rect, confidence } = found.map;
    res.json({ rect, samples: Buffer.from(confidence).toString('base64') });
  });
  return router;
}
