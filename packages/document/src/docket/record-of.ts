import type { Finding, Raster } from '@tersum/core';
import { siteOutlines } from '@tersum/core';
import type { FindingRecord } from '../schema/finding.js';

/** A finding as it is kept: outlines of what a repair covers in the place of pixels. */
export function recordOf(
  finding: Finding,
  advice: FindingRecord['advice'],
  picture: Raster,
  id: string,
  by: FindingRecord['by'],
): FindingRecord {
  const { kind, box, polarity, onBoard, size, extent, contrast, nearEdge, score } = finding;
  const outlines = siteOutlines(finding, picture).map((outline) =>
    outline.map(([x, y]): [number, number] => [x, y]),
  );
  return {
    id,
    kind,
    box,
    outlines,
    polarity,
    onBoard,
    size,
    extent,
    contrast,
    nearEdge,
    score,
    advice,
    by,
  };
}
