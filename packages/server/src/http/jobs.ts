import { rm } from 'node:fs/promises';
import {
  JobDraftSchema,
  KeptDonorDraftSchema,
  JoinQuerySchema,
  MakingSchema,
} from '@tersum/document';
import { Router } from 'express';
import multer from 'multer';
import { z } from 'zod';
import type { Services } from '../services.js';
import { UserProblem } from '@tersum/codec';
import { endedBy } from './ended.js';
import { bodyOf } from './problems.js';

const MOST_BYTES = 2_000_000_000;

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
  const upload = multer({ dest: folders.incoming, limits: { fileSize: MOST_BYTES, files: 1 } });

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

  router.post('/:id/pictures', upload.single('file'), async (req, res) => {
    if (!req.file) throw new UserProblem(400, 'No file arrived. Choose a picture file.');
    try {
      const name = Buffer.from(req.file.originalname, 'latin1').toString('utf8');
      res.status(201).json(await layeredIntake.take(String(req.params.id), req.file.path, name));
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
