import { parentPort } from 'node:worker_threads';
import type { Gathering, Raster, Studied, Study } from '@tersum/core';
import { gathered, study } from '@tersum/core';

/** A part of a survey: a study, or what studies come to. */
export type SurveyPart =
  | { readonly picture: Raster; readonly work: Study }
  | { readonly picture: Raster; readonly of: Gathering; readonly studied: readonly Studied[] };

/** A thread of a survey: does the parts it is given, one after the other. */
parentPort?.on('message', (part: SurveyPart) => {
  parentPort!.postMessage(
    'work' in part ? study(part.picture, part.work) : gathered(part.picture, part.studied, part.of),
  );
});
