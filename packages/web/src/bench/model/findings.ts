import type { FindingKind } from '@tersum/core';
import { FINDING_KINDS, kindsUnder } from '@tersum/core';
import type { DocketFinding, PictureRecords, SurveyAnswer } from '@tersum/document';
import { isMended, isOpen } from '@tersum/document';

/** Findings of one kind as the docket shows them. */
export interface FindingGroup {
  readonly kind: FindingKind;
  /** Open ones above the kind's limit, in the order of work. */
  readonly open: readonly DocketFinding[];
  readonly mended: readonly DocketFinding[];
  readonly dismissed: readonly DocketFinding[];
  /** Seconds by hand and with a sweep for the open ones. */
  readonly byHand: number;
  readonly swept: number;
}

/**
 * The docket of findings: what the policy allows, above each kind's limit, kind by kind in the order of work. A kind of which
 * nothing is above its limit is listed too: looked for more keenly, it may have some.
 */
export function groupsOf(survey: SurveyAnswer, records: PictureRecords): FindingGroup[] {
  const { settings } = survey;
  const standing = new Set(records.repairs.map((r) => r.id));
  const { ppi } = records.picture;
  return FINDING_KINDS.filter(
    (kind) =>
      kindsUnder(settings.policy).includes(kind) && survey.findings.some((f) => f.kind === kind),
  ).map((kind): FindingGroup => {
    const all = survey.findings.filter((f) => f.kind === kind);
    const open = all.filter((f) => isOpen(f, settings, standing, ppi));
    return {
      kind,
      open,
      mended: all.filter((f) => isMended(f, standing)),
      dismissed: all.filter((f) => f.dismissed),
      byHand: open.reduce((sum, f) => sum + f.advice.byHand, 0),
      swept: open.reduce((sum, f) => sum + f.advice.swept, 0),
    };
  });
}

/** A length in px, and in mm where the picture tells its scale: "12 px, 0.5 mm". */
export function measureOf(px: number, ppi: number | null): string {
  const rounded = px < 10 ? Math.round(10 * px) / 10 : Math.round(px);
  if (!ppi) return `${rounded} px`;
  const mm = (px * 25.4) / ppi;
  return `${rounded} px, ${mm < 10 ? mm.toFixed(mm < 0.1 ? 2 : 1) : Math.round(mm)} mm`;
}
