import type { FindingKind, Raster } from '@tersum/core';
import { adviseFinding, coverageOf, frameOf, factsReader, supportOf } from '@tersum/core';
import type { FindingRecord } from '@tersum/document';

/** So many times longer than wide, a thing is a line. */
const SLENDER = 6;

/** A finding made of an outline that a person asked for: its kind by its shape, measured like any other. */
export function addedFinding(
  picture: Raster,
  outline: readonly (readonly [number, number])[],
  id: string,
): FindingRecord {
  const points = outline.map(([x, y]): [number, number] => [x, y]);
  const coverage = coverageOf(
    { kind: 'outline', points },
    { width: 1, softness: 0, flow: 1 },
    frameOf(picture),
  );
  const support = supportOf(coverage);
  const covered = new Uint8Array(picture.width * picture.height);
  const pixels: number[] = [];
  support.forEach((v, i) => {
    if (!v) return;
    const x = coverage.rect.x + (i % coverage.rect.width);
    const y = coverage.rect.y + Math.floor(i / coverage.rect.width);
    pixels.push(y * picture.width + x);
    covered[y * picture.width + x] = 1;
  });
  const box = coverage.rect;
  const extent = Math.hypot(box.width, box.height);
  const breadth = pixels.length / Math.max(1, extent);
  const kind: FindingKind = extent > SLENDER * breadth ? 'lines' : 'specks';
  const size = kind === 'lines' ? breadth : 2 * Math.sqrt(pixels.length / Math.PI);
  const facts = factsReader(picture, covered)(Int32Array.from(pixels), box);
  const rounded = (v: number): number => Math.round(10 * v) / 10;
  const measured = { kind, box, size: rounded(size), extent: rounded(extent), ...facts };
  return {
    id,
    ...measured,
    outlines: [points],
    score: 1,
    advice: adviseFinding(measured),
    by: 'hand',
  };
}
