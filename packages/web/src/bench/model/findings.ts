import type { FindingKind } from '@tersum/core';
import { FINDING_KINDS, mayBeMended } from '@tersum/core';
import type { DocketFinding, PictureRecords, SurveyAnswer } from '@tersum/document';
import { isMended, isOpen } from '@tersum/document';
import type { Place } from './place.js';
import { placeOf } from './place.js';

/** How much is seen of what is long, px. */
const PIECE = 90;

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
  const allowed = survey.findings.filter((f) => mayBeMended(f, settings.policy));
  return FINDING_KINDS.filter((kind) => allowed.some((f) => f.kind === kind)).map(
    (kind): FindingGroup => {
      const all = allowed.filter((f) => f.kind === kind);
      const open = all.filter((f) => isOpen(f, settings, standing, ppi));
      return {
        kind,
        open,
        mended: all.filter((f) => isMended(f, standing)),
        dismissed: all.filter((f) => f.dismissed),
        byHand: open.reduce((sum, f) => sum + f.advice.byHand, 0),
        swept: open.reduce((sum, f) => sum + f.advice.swept, 0),
      };
    },
  );
}

/** A length in px, and in mm where the picture tells its scale: "12 px", "0.5 mm". */
export function measuresOf(px: number, ppi: number | null): string[] {
  const rounded = px < 10 ? Math.round(10 * px) / 10 : Math.round(px);
  if (!ppi) return [`${rounded} px`];
  const mm = (px * 25.4) / ppi;
  return [`${rounded} px`, `${mm < 10 ? mm.toFixed(mm < 0.1 ? 2 : 1) : Math.round(mm)} mm`];
}

/** Kinds that are told by their length. */
export function isLong(kind: FindingKind): boolean {
  return kind === 'lines' || kind === 'creases' || kind === 'wires';
}

/** Contrast from which an edge is worth a word, CIELAB units, and how near, px. */
const EDGE = { contrast: 15, distance: 8 };

/** Whether a clear edge is near enough to be worth a word. */
export function liesAtEdge({ nearEdge }: Pick<DocketFinding, 'nearEdge'>): boolean {
  return !!nearEdge && nearEdge.contrast >= EDGE.contrast && nearEdge.distance <= EDGE.distance;
}

/** What is shown of a finding in small: all of what is compact, a piece from the middle of what is long. */
export function placeOfFinding({ box, kind, size, outlines }: DocketFinding): Place {
  if (!isLong(kind) && kind !== 'mesh') return placeOf(box);
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
  const away = ([x, y]: readonly [number, number]): number =>
    Math.hypot(x - middle[0], y - middle[1]);
  const [x, y] = outlines.flat().reduce((best, p) => (away(p) < away(best) ? p : best));
  return { x, y, side: Math.max(PIECE, 4 * size) };
}
