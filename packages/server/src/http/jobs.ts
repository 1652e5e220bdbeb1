import { rm } from 'node:fs/promises';
import {
  JobDraftSchema,
  KeptDonorDraftSchema,
  JoinQuerySchema,
  MakingSchema,
} from '@tersum/document';
import { Router } from 'express';
import { z } from 'zod';
import type { Services } from '../services.js';
import { UserProblem } from '@tersum/codec';
import { endedBy } from './ended.js';
import { bodyOf } from './problems.js';
import { fileInto, nameOf } from './upload.js';

/** Jobs, and taking pictures into them. */
export function jobRoutes({
  jobs,
  keptDonors,
  layeredIntake,
  makings,
  reports,
  folders,
}: Services): Router {
  const router = Router();

  router.get('/', (_req, res) => void res.json(jobs.list()));
  router.post(
    '/',
    (req, res) => void res.status(201).json(jobs.create(bodyOf(JobDraftSchema, req))),
  );
  router.get('/:id', (req, res) => void res.json(jobs.get(req.params.id)));
  router.put(
    '/:id',
    (req, res) => void res.json(jobs.update(req.params.id, bodyOf(JobDraftSchema, req))),
  );

  router.post('/:id/archive', (req, res) => {
    const { archived } = bodyOf(z.object({ archived: z.boolean() }), req);
    res.json(jobs.archive(req.params.id, archived));
  });
  router.post('/:id/duplicate', (req, res) => {
    res.status(201).json(jobs.duplicate(req.params.id));
  });
  router.delete('/:id', (req, res) => {
    jobs.drop(req.params.id);
    res.json({});
  });
  router.post('/:id/restore', (req, res) => void res.json(jobs.restore(req.params.id)));

  router.get('/:id/donors', (req, res) => void res.json(keptDonors.list(req.params.id)));
  router.post('/:id/donors', (req, res) => {
    res.status(201).json(keptDonors.keep(req.params.id, bodyOf(KeptDonorDraftSchema, req)));
  });
  router.delete('/:id/donors/:donor', (req, res) => {
    keptDonors.drop(req.params.id, req.params.donor);
    res.json({});
  });

  router.post('/:id/pictures', fileInto(folders.incoming), async (req, res) => {
    if (!req.file) throw new UserProblem(400, 'No file arrived. Choose a picture file.');
    try {
      const { path } = req.file;
      const taken = await layeredIntake.take(String(req.params.id), path, nameOf(req.file));
      res.status(201).json(taken);
    } finally {
      await rm(req.file.path, { force: true });
    }
  });
  router.get('/:id/contact.pdf', async (req, res) => {
    const pdf = await reports.contactPdf(req.params.id);
    res.type('pdf').send(Buffer.from(pdf));
  });

  router.get('/:id/contact.png', async (req, res) => {
    const png = await reports.contactPng(req.params.id);
    res.type('png').send(png);
  });

  router.post('/:id/joins/plan', async (req, res) => {
    const query = bodyOf(JoinQuerySchema, req);
    res.json(await makings.joinPlan(req.params.id, query, endedBy(req, res)));
  });
  router.post('/:id/makings', (req, res) => {
    jobs.get(req.params.id);
    res.status(202).json(makings.begin(req.params.id, bodyOf(MakingSchema, req)));
  });
  router.get('/:id/makings/:making', (req, res) => {
    res.json(makings.status(req.params.making));
  });
  router.delete('/:id/makings/:making', (req, res) => {
    makings.stop(req.params.making);
    res.json({});
  });
  return router;
}
