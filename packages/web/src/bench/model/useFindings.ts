import { useMemo } from 'react';
import { useSurvey } from '../../api/survey.js';
import { useBenchState } from './context.js';
import type { FindingGroup } from './findings.js';
import { groupsOf } from './findings.js';

/** The survey of the picture on the bench and its docket of findings. */
export function useFindings() {
  const { pictureId, records } = useBenchState((s) => ({
    pictureId: s.pictureId,
    records: s.records,
  }));
  const { data: survey, error } = useSurvey(pictureId);
  const groups = useMemo(
    (): readonly FindingGroup[] => (survey && records ? groupsOf(survey, records) : []),
    [survey, records],
  );
  return { survey, groups, records, error: error as unknown };
}
