import type { Point } from '@tersum/core';
import type { Edit, Layer, PictureRecords } from '@tersum/document';
import { plainFill } from '@tersum/document';
import { layerEdit, positionAfter, repairEdit } from '../../bench/model/repairs.js';
import { keptOff } from './widening.js';

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
  const layer: Layer = {
    id: crypto.randomUUID(),
    name: 'Backdrop',
    visible: true,
    position: positionAfter(records.layers),
  };
  return [
    layerEdit(layer),
    repairEdit({
      id: crypto.randomUUID(),
      layerId: layer.id,
      position: 0,
      enabled: true,
      site: {
        kind: 'parts',
        parts: beyond.map((points) => ({
          shape: { kind: 'outline', points: points.map(([x, y]): [number, number] => [x, y]) },
          width: 1,
        })),
      },
      width: 1,
      softness: 0,
      flow: 1,
      strength: 1,
      method: { ...plainFill(crypto.randomUUID()), areas: keptOff(subject) },
      reason: 'the backdrop goes on',
      createdAt: new Date().toISOString(),
    }),
  ];
}
