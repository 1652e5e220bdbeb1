import type { Point, Sides } from '@tersum/core';
import type { Edit, Layer, Method, PictureRecords, Repair, Site } from '@tersum/document';
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

type Outline = readonly Point[];

/**
 * What makes the picture's canvas another: a record on a layer of its own, above all repairs there are.
 * @param subject is kept by a stretch and not copied by a fill
 */
export function wideningEdits(
  records: PictureRecords,
  sides: Sides,
  way: Way,
  subject: readonly Outline[],
): Edit[] {
  const before = wideningIn(records);
  const kept = subject.map(plain);
  const method: Method =
    way === 'stretch' ? { kind: 'stretch', sides, kept } : filled(before, sides, kept);
  const site =
    way === 'stretch' ? canvasSite(records.picture, sides) : sidesSite(records.picture, sides);
  if (before) return [repairEdit({ ...before, enabled: true, site, method })];
  return onLayerOfItsOwn(records, 'New sides', site, method, 'more background');
}

/** A record of the whole picture on a new layer above all others. */
export function onLayerOfItsOwn(
  records: PictureRecords,
  name: string,
  site: Site,
  method: Method,
  reason: string,
): Edit[] {
  const layer: Layer = {
    id: crypto.randomUUID(),
    name,
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
      reason,
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

function plain(points: Outline): [number, number][] {
  return points.map(([x, y]) => [x, y]);
}

/** A fill of the sides that copies nothing of what is closed; what was asked of an earlier one stands. */
function filled(before: Repair | null, sides: Sides, closed: [number, number][][]): Method {
  const search = crypto.randomUUID();
  if (before?.method.kind === 'fill') return { ...before.method, sides, search };
  return { ...plainFill(search), sides, areas: keptOff(closed) };
}

/** Areas that a fill copies nothing of. */
export function keptOff(outlines: readonly Outline[]) {
  return outlines.map((points) => ({
    allow: false,
    shape: { kind: 'outline' as const, points: plain(points) },
    width: 1,
  }));
}
