import type { Halves } from '../raster/halves.js';
import { halveRows, roomForHalves, stripsOf } from '../raster/halves.js';
import type { Raster } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { FindingKind } from './finding.js';
import type { Candidate } from './candidate.js';
import type { Gathering } from './gather.js';
import { gathered, GATHERINGS, gathersFrom } from './gather.js';
import type { Studied, Study } from './studies.js';
import { studiesFor, study } from './studies.js';

/** A part of the work of a survey, plain data, for whichever thread. */
export type SurveyPart =
  | { readonly do: 'halve'; readonly from: number; readonly to: number }
  | { readonly do: 'study'; readonly study: Study }
  | { readonly do: 'gather'; readonly of: Gathering; readonly studied: readonly Studied[] };

/** What a part comes to; plain data. Rows are halved where they are. */
export type SurveyPartDone<P extends SurveyPart = SurveyPart> = {
  halve: null;
  study: Studied[];
  gather: Candidate[];
}[P['do']];

/** Does a part of a survey. @param halves over shared memory where parts are done by several threads */
export function surveyPart(halves: Halves, part: SurveyPart): SurveyPartDone {
  switch (part.do) {
    case 'halve':
      halveRows(halves, part.from, part.to);
      return null;
    case 'study':
      return study(halves, part.study);
    case 'gather':
      return gathered(halves, part.studied, part.of);
  }
}

/** Has a part done, beside others; those asked for first are begun first. */
export type PartDoer = <P extends SurveyPart>(
  halves: Halves,
  part: P,
) => Promise<SurveyPartDone<P>>;

/** Into how many parts a picture is halved, whatever the number of threads. */
const STRIPS = 4;

/**
 * What a survey chooses its findings from, its parts done side by side: the same every time whichever is done first.
 * @param picture over shared memory
 * @throws Cancelled
 */
export async function candidatesBy(
  doer: PartDoer,
  picture: Raster,
  kinds: readonly FindingKind[],
  task?: Task,
): Promise<Candidate[]> {
  const studies = studiesFor(picture, kinds);
  const halves = roomForHalves(
    picture,
    (values) => new Float32Array(new SharedArrayBuffer(4 * values)),
  );
  const steps = STRIPS + studies.length + GATHERINGS.length + 1;
  let done = 0;
  const told = async <P extends SurveyPart>(part: P): Promise<SurveyPartDone<P>> => {
    const result = await doer(halves, part);
    checkpoint(task, ++done / steps);
    return result;
  };
  await Promise.all(stripsOf(halves, STRIPS).map(([from, to]) => told({ do: 'halve', from, to })));
  const studied = studies.map((s) => told({ do: 'study', study: s }));
  const found = await Promise.all(
    GATHERINGS.map(async (of) => {
      const telling = studied.filter((_, k) =>
        studies[k]!.of.some((what) => gathersFrom(of, what)),
      );
      const results = (await Promise.all(telling)).flat().filter((s) => gathersFrom(of, s.of));
      return told({ do: 'gather', of, studied: results });
    }),
  );
  return found.flat();
}
