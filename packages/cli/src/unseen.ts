import type { Finding, FindingKind } from '@tersum/core';
import { FINDING_KINDS, leastScore } from '@tersum/core';

/**
 * By how much less sensitive than a survey that is looked through: nobody sees what is found, and of what is just told,
 * most is none (measured on made-up damage to open photographs).
 */
const UNSEEN: Partial<Record<FindingKind, number>> = {
  specks: 0.07,
  losses: 0.35,
  creases: 0.15,
};

/** The same for specks of another colour: patches of colour are what pictures are made of. */
const TINTED = 0.25;

/**
 * The same for specks whose extent is more than so many px and a share of the picture's size (root of its area): dust is
 * small, and large spots are eyes, holes and birds, which take most room of all that is wrongly mended.
 */
const LARGE = { extent: 12, share: 0.02, less: 0.49 } as const;

/**
 * Hairs and scratches come in numbers: where so many are sure, a line need be little surer than in a survey; elsewhere it is
 * more likely the picture's, unless it is very sure.
 */
const LINES = { many: 2, sure: 0.23, among: 0.03, alone: 0.49 } as const;

/**
 * Creases come together as well. Where none is very sure, they have to be the surer: of what else is told as a crease in a
 * picture, most is a road, an eave or a plank.
 */
const CREASES = { sure: 0.49, alone: 0.35 } as const;

/** What a survey that nobody looks through is made at. @param sensitivity 0..1, of one that is looked through */
export function sensitivityUnseen(sensitivity: number): Record<FindingKind, number> {
  const own = (kind: FindingKind): number => Math.max(0, sensitivity - (UNSEEN[kind] ?? 0));
  return Object.fromEntries(FINDING_KINDS.map((kind) => [kind, own(kind)])) as Record<
    FindingKind,
    number
  >;
}

/**
 * Findings that may be mended without being looked at.
 * @param frame the picture's width and height, px
 */
export function sureUnseen<F extends Pick<Finding, 'kind' | 'score' | 'tinted' | 'extent'>>(
  findings: readonly F[],
  sensitivity: number,
  frame: { readonly width: number; readonly height: number },
): F[] {
  const least = (less: number): number => leastScore(sensitivity - less);
  const sureOf = (asked: FindingKind, less: number): number =>
    findings.filter(({ kind, score }) => kind === asked && score > least(less)).length;
  const leastLine = least(sureOf('lines', LINES.sure) < LINES.many ? LINES.alone : LINES.among);
  const leastCrease = sureOf('creases', CREASES.sure) ? 0 : least(CREASES.alone);
  const large = Math.max(LARGE.extent, LARGE.share * Math.sqrt(frame.width * frame.height));
  return findings.filter(({ kind, score, tinted, extent }) => {
    if (tinted) return score > least(TINTED);
    if (kind === 'specks') return extent <= large || score > least(LARGE.less);
    if (kind === 'creases') return score > leastCrease;
    return kind !== 'lines' || score > leastLine;
  });
}
