import type { Finding, FindingKind, Point, Raster } from '@tersum/core';
import {
  adviseFinding,
  boxOf,
  coverageOf,
  factsReader,
  frameOf,
  markAt,
  supportOf,
} from '@tersum/core';
import type { FindingRecord } from '../schema/finding.js';
import { searchRegion } from '../render/search.js';
import { recordOf } from './record-of.js';

/** So many times longer than wide, a thing is a line. */
const SLENDER = 6;
/** So many pieces of one hue close together are a printed or written mark. */
const MARK = 3;

/**
 * A finding made at a place a person named: the printed mark that lies there, or else the thing that stands out there,
 * grown to its outline; measured like any other.
 * @returns null where nothing stands out
 */
export function addedRecord(picture: Raster, at: Point, id: string): FindingRecord | null {
  const mark = markAt(picture, at);
  if (mark && mark.pieces >= MARK) return byHand(picture, mark.pixels, 'ink', id);
  const outline = searchRegion(picture, [at]);
  if (!outline) return null;
  const points = outline.map(([x, y]): [number, number] => [x, y]);
  const { rect, values } = coverageOf(
    { kind: 'outline', points },
    { width: 1, softness: 0, flow: 1 },
    frameOf(picture),
  );
  const support = supportOf({ rect, values });
  const pixels = Int32Array.from(
    [...support.keys()].filter((i) => support[i]),
    (i) => (rect.y + Math.floor(i / rect.width)) * picture.width + rect.x + (i % rect.width),
  );
  if (!pixels.length) return null;
  const breadth = pixels.length / Math.max(1, Math.hypot(rect.width, rect.height));
  const kind = Math.hypot(rect.width, rect.height) > SLENDER * breadth ? 'lines' : 'specks';
  return byHand(picture, pixels, kind, id);
}

function byHand(picture: Raster, pixels: Int32Array, kind: FindingKind, id: string): FindingRecord {
  const covered = new Uint8Array(picture.width * picture.height);
  for (const p of pixels) covered[p] = 1;
  const box = boxOf(pixels, picture.width);
  const extent = Math.hypot(box.width, box.height);
  const size = kind === 'lines' ? pixels.length / extent : 2 * Math.sqrt(pixels.length / Math.PI);
  const tenth = (v: number): number => Math.round(10 * v) / 10;
  const finding: Finding = {
    kind,
    box,
    pixels,
    parts: [pixels],
    line: null,
    size: tenth(size),
    soft: 1,
    tinted: false,
    onBoard: false,
    extent: tenth(extent),
    score: 1,
    ...factsReader(picture, covered)(pixels, box),
  };
  return recordOf(finding, adviseFinding(finding), picture, id, 'hand');
}
