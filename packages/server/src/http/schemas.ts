import { UserProblem } from '@tersum/codec';
import { BundleSchema, ReportSchema } from '@tersum/document';
import { Router } from 'express';
import { z } from 'zod';

/** What is published: the job that travels in a zip, and the treatment report. */
const PUBLISHED: Readonly<Record<string, z.ZodType>> = {
  'job.json': BundleSchema,
  'treatment-report.json': ReportSchema,
};

/** JSON Schemas (draft 2020-12) of the files that leave the house, made from what checks them. */
export function schemaRoutes(): Router {
  const router = Router();
  router.get('/:name', (req, res) => {
    const schema = PUBLISHED[req.params.name];
    if (!schema)
      throw new UserProblem(404, `There are schemas of ${Object.keys(PUBLISHED).join(' and ')}.`);
    res.json(z.toJSONSchema(schema));
  });
  return router;
}
