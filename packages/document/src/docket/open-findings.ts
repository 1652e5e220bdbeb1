import { kindsUnder, shows, USUAL_PPI } from '@tersum/core';
import type { DocketFinding, SurveySettings } from '../schema/finding.js';

/** What of a finding decides whether it is on the docket. */
export type FindingFacts = Pick<
  DocketFinding,
  'kind' | 'score' | 'size' | 'contrast' | 'dismissed' | 'repairId'
>;

/** Score a finding needs at a sensitivity 0..1; the survey's limit at 0.5 is a score of 0.5. */
export function leastScore(sensitivity: number): number {
  return 1 / (1 + Math.exp(6 * (sensitivity - 0.5)));
}

/** Whether a finding is mended as the records stand: its repair was not undone or deleted. */
export function isMended(
  { repairId }: Pick<FindingFacts, 'repairId'>,
  standing: ReadonlySet<string>,
): boolean {
  return repairId !== null && standing.has(repairId);
}

/** Whether a finding is still to do: allowed, above its kind's limit, neither mended nor kept as it is. */
export function isOpen(
  finding: FindingFacts,
  settings: SurveySettings,
  standing: ReadonlySet<string>,
  ppi: number | null,
): boolean {
  return (
    !finding.dismissed &&
    !isMended(finding, standing) &&
    kindsUnder(settings.policy).includes(finding.kind) &&
    finding.score >= leastScore(settings.sensitivity[finding.kind] ?? 0.5) &&
    (!settings.onlyShown || shows(finding.size, finding.contrast, useOf(settings, ppi)))
  );
}

/** How a picture will be looked at, as settings say. */
export function useOf(settings: SurveySettings, ppi: number | null) {
  return { ppi: ppi ?? USUAL_PPI, enlargement: settings.enlargement, distance: settings.distance };
}
