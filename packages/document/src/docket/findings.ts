import type { Candidate, Finding, Raster } from '@tersum/core';
import { adviseAll, findingsFrom } from '@tersum/core';
import type { FindingRecord } from '../schema/finding.js';
import { recordOf } from './record-of.js';

/** Most findings of one kind that are kept, likeliest first. */
const MOST = 4000;

/**
 * Candidates as records. All that the highest sensitivity finds is kept, so that a person can turn the
 * sensitivity afterwards without a new survey.
 * @param name gives every record its id
 */
export function findingRecords(
  picture: Raster,
  candidates: readonly Candidate[],
  name: () => string,
): FindingRecord[] {
  const all = findingsFrom(picture, candidates, { sensitivity: 1 });
  const counts = new Map<Finding['kind'], number>();
  const findings = all.filter(({ kind }) => {
    const before = counts.get(kind) ?? 0;
    counts.set(kind, before + 1);
    return before < MOST;
  });
  const advice = adviseAll(findings, picture);
  return findings.map((finding, k) => recordOf(finding, advice[k]!, picture, name(), 'survey'));
}
