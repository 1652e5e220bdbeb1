import { StandSchema, SweptFrameSchema, WorkTimeSchema } from '@tersum/document';
import { Router } from 'express';
import type { Services } from '../services.js';
import { endedBy } from './ended.js';
import { bodyOf } from './problems.js';

/** What gives a picture's repairs away, which of its frames were looked at, and the time it took. */
export function proofRoutes({ records, proofDesk, proofs, work }: Services): Router {
  const router = Router();

  router.get('/:id/proof', (req, res) => {
    res.json(proofDesk.kept(req.params.id));
  });
  router.post('/:id/proof', async (req, res) => {
    res.json(await proofDesk.prove(req.params.id, endedBy(req, res)));
  });
  router.post('/:id/proof/stand', (req, res) => {
    res.json(proofDesk.stand(req.params.id, bodyOf(StandSchema, req)));
  });

  router.get('/:id/sweep', (req, res) => {
    const { id } = records.picture(req.params.id);
    res.json({ frames: proofs.swept(id) });
  });
  router.post('/:id/sweep', (req, res) => {
    const { id } = records.picture(req.params.id);
    proofs.sweep(id, bodyOf(SweptFrameSchema, req));
    res.json({ frames: proofs.swept(id) });
  });
  router.get('/:id/work', (req, res) => {
    const { id } = records.picture(req.params.id);
    res.json(work.log(id));
  });
  router.post('/:id/work', (req, res) => {
    const { id } = records.picture(req.params.id);
    work.add(id, bodyOf(WorkTimeSchema, req));
    res.json({});
  });
  return router;
}
