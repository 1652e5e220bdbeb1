import type { FindingKind } from '@tersum/core';
import { FINDING_KINDS, kindsUnder, shows, USUAL_PPI } from '@tersum/core';
import type { DocketFinding, PictureRecords, SurveyAnswer, SurveySettings } from '@tersum/document';

/** What kinds are called on the docket, and what one is called. */
export const KIND_NAMES: Record<FindingKind, readonly [many: string, one: string]> = {
  losses: ['Losses', 'Loss'],
  creases: ['Creases', 'Crease'],
  mesh: ['Mesh', 'Mesh'],
  wires: ['Wires', 'Wire'],
  ink: ['Ink', 'Ink'],
  specks: ['Specks', 'Speck'],
  lines: ['Lines', 'Line'],
  stains: ['Stains', 'Stain'],
  pulls: ['Pulls', 'Pull'],
};

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

/** Score a finding needs at a sensitivity 0..1; the survey's limit at 0.5 is a score of 0.5. */
export function leastScore(sensitivity: number): number {
  return 1 / (1 + Math.exp(6 * (sensitivity - 0.5)));
}

/** Whether a finding is mended as the records stand: its repair was not undone or deleted. */
export function isMended({ repairId }: DocketFinding, standing: ReadonlySet<string>): boolean {
  return repairId !== null && standing.has(repairId);
}

/** The docket of findings: what the policy allows, above each kind's limit, kind by kind in the order of work. */
export function groupsOf(survey: SurveyAnswer, records: PictureRecords): FindingGroup[] {
  const { settings } = survey;
  const standing = new Set(records.repairs.map((r) => r.id));
  const use = useOf(settings, records.picture.ppi);
  return FINDING_KINDS.filter((kind) => kindsUnder(settings.policy).includes(kind))
    .map((kind): FindingGroup => {
      const least = leastScore(settings.sensitivity[kind] ?? 0.5);
      const all = survey.findings.filter((f) => f.kind === kind);
      const open = all.filter(
        (f) =>
          !f.dismissed &&
          !isMended(f, standing) &&
          f.score >= least &&
          (!settings.onlyShown || shows(f.size, f.contrast, use)),
      );
      return {
        kind,
        open,
        mended: all.filter((f) => isMended(f, standing)),
        dismissed: all.filter((f) => f.dismissed),
        byHand: open.reduce((sum, f) => sum + f.advice.byHand, 0),
        swept: open.reduce((sum, f) => sum + f.advice.swept, 0),
      };
    })
    .filter((g) => g.open.length + g.mended.length + g.dismissed.length > 0);
}

/** How a picture will be looked at, as settings say. */
export function useOf(settings: SurveySettings, ppi: number | null) {
  return { ppi: ppi ?? USUAL_PPI, enlargement: settings.enlargement, distance: settings.distance };
}

/** A length in px, and in mm where the picture tells its scale: "12 px, 0.5 mm". */
export function measureOf(px: number, ppi: number | null): string {
  const rounded = px < 10 ? Math.round(10 * px) / 10 : Math.round(px);
  if (!ppi) return `${rounded} px`;
  const mm = (px * 25.4) / ppi;
  return `${rounded} px, ${mm < 10 ? mm.toFixed(mm < 0.1 ? 2 : 1) : Math.round(mm)} mm`;
}

/** Seconds as a person says them: "40 s", "12 min", "1 h 10 min". */
export function timeOf(seconds: number): string {
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 90) return `${minutes} min`;
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}
