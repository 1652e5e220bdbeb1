import type { Change, DocketFinding } from '@tersum/document';
import {
  AddFindingSchema,
  DismissSchema,
  passedOver,
  SurveySettingsSchema,
  SweepSchema,
  TakeOutSchema,
} from '@tersum/document';
import { UserProblem } from '@tersum/codec';
import { Router } from 'express';
import type { Services } from '../services.js';
import { sweepOf, takenOut } from '../survey/sweeps.js';
import { bodyOf } from './problems.js';

/** The survey of a picture and its docket of findings. */
export function surveyRoutes({
  records,
  findings,
  surveys,
  renderer,
  bases,
  pool,
  db,
}: Services): Router {
  const router = Router();

  router.get('/:id/survey', (req, res) => void res.json(surveys.describe(req.params.id)));

  router.post('/:id/survey', (req, res) => {
    surveys.begin(req.params.id);
    res.status(202).json(surveys.describe(req.params.id));
  });

  router.post('/:id/survey/cancel', (req, res) => {
    surveys.cancel(req.params.id);
    res.json(surveys.describe(req.params.id));
  });

  router.post('/:id/survey/settings', (req, res) => {
    const { id } = records.picture(req.params.id);
    findings.setSurvey(id, { settings: bodyOf(SurveySettingsSchema, req) });
    res.json(surveys.describe(id));
  });

  router.post('/:id/findings/dismiss', (req, res) => {
    const { ids, dismissed } = bodyOf(DismissSchema, req);
    findings.dismiss(req.params.id, ids, dismissed);
    res.json(surveys.describe(req.params.id));
  });

  router.post('/:id/findings', async (req, res) => {
    const { at } = bodyOf(AddFindingSchema, req);
    const { ppi } = records.picture(req.params.id);
    const { settings } = findings.survey(req.params.id);
    const standing = new Set(records.records(req.params.id).repairs.map((r) => r.id));
    const doubted = passedOver(findings.list(req.params.id), at, settings, standing, ppi);
    if (doubted) {
      findings.confirm(req.params.id, doubted);
      return void res.json({ id: doubted.id, survey: surveys.describe(req.params.id) });
    }
    const { raster } = (await bases.get(req.params.id)).picture;
    const finding = await pool.run({ kind: 'added', original: raster, at });
    if (!finding)
      throw new UserProblem(
        422,
        'Nothing stands out here. Click the middle of what should go, or draw it by hand.',
      );
    findings.add(req.params.id, finding);
    res.json({ id: finding.id, survey: surveys.describe(req.params.id) });
  });

  /** A change of records and of what findings say of them, kept together or not at all. */
  const keep = (
    id: string,
    change: Change,
    links: readonly { repairId: string | null; ids: string[] }[],
  ) => {
    renderer.anticipate(id, change);
    const after = db.transaction(() => {
      const kept = records.change(id, change);
      for (const { repairId, ids } of links) findings.link(id, ids, repairId);
      return kept;
    });
    renderer.changed(id);
    return after;
  };

  router.post('/:id/sweeps', (req, res) => {
    const { version, ids } = bodyOf(SweepSchema, req);
    const { id } = req.params;
    const wanted = new Set(ids);
    const now = records.records(id);
    const standing = new Set(now.repairs.map((r) => r.id));
    const open = findings
      .list(id)
      .filter((f) => wanted.has(f.id) && !f.dismissed && !(f.repairId && standing.has(f.repairId)));
    const { label, edits, links } = sweepOf(now, open);
    const after = keep(id, { version, label, edits }, links);
    res.json({
      records: after,
      survey: surveys.describe(id),
      repairIds: links.map((l) => l.repairId),
    });
  });

  router.post('/:id/findings/take-out', (req, res) => {
    const { version, id: findingId, mend } = bodyOf(TakeOutSchema, req);
    const { id } = req.params;
    const finding = findings.list(id).find((f: DocketFinding) => f.id === findingId);
    const repair = records.records(id).repairs.find((r) => r.id === finding?.repairId);
    if (!finding || !repair) throw new UserProblem(404, 'This finding is not mended any more.');
    const { edits, own } = takenOut(repair, finding, mend);
    const label = mend ? 'Open one finding by itself' : 'Leave one finding out';
    const after = keep(id, { version, label, edits }, [
      { repairId: own?.id ?? null, ids: [findingId] },
    ]);
    res.json({ records: after, survey: surveys.describe(id), repairIds: own ? [own.id] : [] });
  });
  return router;
}
