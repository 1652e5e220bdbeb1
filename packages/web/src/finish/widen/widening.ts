import type { Point, Sides } from '@tersum/core';
import type { Edit, Layer, Method, PictureRecords, Repair } from '@tersum/document';
import { canvasSite, plainFill, sidesOf, sidesSite } from '@tersum/document';
import { layerEdit, positionAfter, repairEdit } from '../../bench/model/repairs.js';
import type { Way } from './plan.js';

/** The widening a picture has, switched on or off. */
export function wideningIn({ repairs }: PictureRecords): Repair | null {
  return repairs.find(({ method }) => sidesOf(method)) ?? null;
}

/** How the sides of a widening were got. */
export function wayOf({ method }: Repair): Way {
  return method.kind === 'stretch' ? 'stretch' : 'fill';
}

/** What makes the picture's canvas another: a record on a layer of its own, above all repairs there are. */
export function wideningEdits(
  records: PictureRecords,
  sides: Sides,
  way: Way,
  subject: readonly (readonly Point[])[],
): Edit[] {
  const before = wideningIn(records);
  const outlines = subject.map((points) => points.map(([x, y]): [number, number] => [x, y]));
  const method: Method =
    way === 'stretch'
      ? { kind: 'stretch', sides, kept: outlines }
      : filled(before, sides, outlines);
  const site =
    way === 'stretch' ? canvasSite(records.picture, sides) : sidesSite(records.picture, sides);
  if (before) return [repairEdit({ ...before, enabled: true, site, method })];
  const layer: Layer = {
    id: crypto.randomUUID(),
    name: 'New sides',
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
      site,
      width: 1,
      softness: 0,
      flow: 1,
      strength: 1,
      method,
      reason: 'more background',
      createdAt: new Date().toISOString(),
    }),
  ];
}

/** Takes the widening away, and its layer with it where nothing else lies on it. */
export function withoutEdits(records: PictureRecords): Edit[] {
  const widening = wideningIn(records);
  if (!widening) return [];
  const alone = records.repairs.every(
    (r) => r.id === widening.id || r.layerId !== widening.layerId,
  );
  return [
    { entity: 'repair', id: widening.id, after: null },
    ...(alone ? [{ entity: 'layer' as const, id: widening.layerId, after: null }] : []),
  ];
}

/** A fill of the sides that copies nothing of the subject; what was asked of an earlier one stands. */
function filled(before: Repair | null, sides: Sides, subject: [number, number][][]): Method {
  const search = crypto.randomUUID();
  if (before?.method.kind === 'fill') return { ...before.method, sides, search };
  const areas = subject.map((points) => ({
    allow: false,
    shape: { kind: 'outline' as const, points },
    width: 1,
  }));
  return { ...plainFill(search), sides, areas };
}
