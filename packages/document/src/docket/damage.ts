import type { Rect } from '@tersum/core';
import { meets } from '@tersum/core';
import type { SourceArea } from '../schema/fill.js';
import type { DocketFinding, SurveySettings } from '../schema/finding.js';
import { isOpen } from './open-findings.js';

/** What a survey left on the docket of a picture. */
interface Surveyed {
  readonly findings: readonly DocketFinding[];
  readonly settings: SurveySettings;
  /** Repairs there are. */
  readonly standing: ReadonlySet<string>;
  readonly ppi: number | null;
}

/** Damage near a place that is still to be mended: a fill copies nothing of it. What only draws the eye is none. */
export function damageNear(
  { findings, settings, standing, ppi }: Surveyed,
  near: Rect,
): SourceArea[] {
  return findings
    .filter((f) => f.kind !== 'pulls' && meets(f.box, near) && isOpen(f, settings, standing, ppi))
    .flatMap(({ outlines }) => outlines)
    .map((points) => ({
      allow: false,
      shape: { kind: 'outline', points: points.map(([x, y]): [number, number] => [x, y]) },
      width: 1,
    }));
}
