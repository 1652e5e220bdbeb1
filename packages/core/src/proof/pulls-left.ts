import type { Raster } from '../raster/raster.js';
import type { Rect } from '../raster/rect.js';
import type { Point } from '../shape/site.js';
import { siteOutlines } from '../survey/outlines.js';
import { survey } from '../survey/survey.js';

/** Something that draws the eye in a picture as it stands: a tell of the whole, which no repair need have made. */
export interface PullLeft {
  /** Score, 0..1. */
  readonly value: number;
  readonly box: Rect;
  /** What a repair would cover, px. */
  readonly outlines: readonly (readonly Point[])[];
}

const SENSITIVITY = 0.65;

/** What draws the eye away in the far view, the strongest first. */
export function pullsLeft(picture: Raster): PullLeft[] {
  return survey(picture, { kinds: ['pulls'], sensitivity: SENSITIVITY }).map((finding) => ({
    value: finding.score,
    box: finding.box,
    outlines: siteOutlines(finding, picture),
  }));
}
