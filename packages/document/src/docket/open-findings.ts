import { isWithin, leastScore, mayBeMended, shows, USUAL_PPI } from '@tersum/core';
import type { DocketFinding, SurveyArea, SurveySettings } from '../schema/finding.js';

/** What of a finding decides whether it is on the docket. */
export type FindingFacts = Pick<
  DocketFinding,
  'kind' | 'box' | 'by' | 'onBoard' | 'score' | 'size' | 'contrast' | 'dismissed' | 'repairId'
>;

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
    mayBeMended(finding, settings.policy) &&
    finding.score >= leastScore(settings.sensitivity[finding.kind] ?? 0.5) &&
    isAskedFor(finding, settings) &&
    (!settings.onlyShown || shows(finding.size, finding.contrast, useOf(settings, ppi)))
  );
}

/**
 * What the survey found at a place but is not on the docket, since it was not sure or the place was kept off; the smallest.
 * Null where there is nothing, or what there is may not be mended or is on the docket already.
 */
export function passedOver(
  findings: readonly DocketFinding[],
  at: readonly [number, number],
  settings: SurveySettings,
  standing: ReadonlySet<string>,
  ppi: number | null,
): DocketFinding | null {
  const area = ({ box }: DocketFinding): number => box.width * box.height;
  const [smallest] = findings
    .filter(
      (f) =>
        !isMended(f, standing) &&
        mayBeMended(f, settings.policy) &&
        f.outlines.some((outline) => isWithin(outline, at)),
    )
    .sort((one, other) => area(one) - area(other));
  return smallest && !isOpen(smallest, settings, standing, ppi) ? smallest : null;
}

/**
 * Whether a finding lies where its kind is asked for: not where it is kept off, nor a pull within the subject. What a person
 * pointed at is asked for anywhere.
 */
function isAskedFor(
  { kind, box, by }: Pick<FindingFacts, 'kind' | 'box' | 'by'>,
  { areas, subject }: SurveySettings,
): boolean {
  if (by === 'hand') return true;
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
  if (kind === 'pulls' && subject && isWithin(subject, middle)) return false;
  const own = areas.filter((area) => area.kind === kind);
  const limits = own.filter(({ only }) => only);
  const holds = ({ outline }: SurveyArea): boolean => isWithin(outline, middle);
  return (!limits.length || limits.some(holds)) && !own.some((area) => !area.only && holds(area));
}

/** How a picture will be looked at, as settings say. */
export function useOf(settings: SurveySettings, ppi: number | null) {
  return { ppi: ppi ?? USUAL_PPI, enlargement: settings.enlargement, distance: settings.distance };
}
