import type { Halves, SurveyPart, SurveyPartDone } from '@tersum/core';
import { surveyPart } from '@tersum/core';

/** A thread of a survey: does the parts it is given. */
export default function ({ halves, part }: { halves: Halves; part: SurveyPart }): SurveyPartDone {
  return surveyPart(halves, part);
}
