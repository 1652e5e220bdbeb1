import type { Point } from '@tersum/core';
import type { Edit, PictureRecords } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { keptOff, onLayerOfItsOwn } from './widening.js';

type Outline = readonly Point[];

/**
 * Makes the backdrop where it ends inside the frame: a fill of what lies beyond it, on a layer of its own.
 * @param beyond what is filled @param subject is not copied
 */
export function backdropEdits(
  records: PictureRecords,
  beyond: readonly Outline[],
  subject: readonly Outline[],
): Edit[] {
  const parts = beyond.map((points) => ({
    shape: {
      kind: 'outline' as const,
      points: points.map(([x, y]): [number, number] => [x, y]),
    },
    width: 1,
  }));
  const method = { ...plainFill(crypto.randomUUID()), areas: keptOff(subject) };
  const site = { kind: 'parts' as const, parts };
  return onLayerOfItsOwn(records, 'Backdrop', site, method, 'the backdrop goes on');
}
