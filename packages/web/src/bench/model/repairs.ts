import type { Point, Rect } from '@tersum/core';
import { coverageOf, extentOf, moveShape, pathLength, pathOf } from '@tersum/core';
import type { Edit, Layer, Method, Records, Repair, Site } from '@tersum/document';
import { layersInOrder, repairsOfLayer } from '@tersum/document';

/** What a repair is called by its method. */
export const METHOD_NAMES: Record<Method['kind'], string> = {
  clone: 'Clone',
  graft: 'Graft',
  fill: 'Fill',
};

const SITE_NAMES: Record<Site['kind'], string> = {
  dab: 'dab',
  stroke: 'stroke',
  chain: 'chain',
  outline: 'outline',
  rectangle: 'rectangle',
};

export function siteName(repair: Repair): string {
  return SITE_NAMES[repair.site.kind];
}

/** Letter of a repair, by its place in the picture's order: A..Z, AA.. */
export function letterOf(index: number): string {
  const letter = String.fromCharCode(65 + (index % 26));
  return index < 26 ? letter : letterOf(Math.floor(index / 26) - 1) + letter;
}

/** All repairs in the docket's order: top layer first, within it first done first. */
export function docketOrder(records: Records): Repair[] {
  return layersInOrder(records)
    .reverse()
    .flatMap((layer) => repairsOfLayer(records, layer.id));
}

/** Size of the site in px: length of lines, longer side of areas. */
export function siteLength(repair: Repair): number {
  if (repair.site.kind === 'dab') return repair.width;
  if (repair.site.kind === 'stroke' || repair.site.kind === 'chain')
    return pathLength(pathOf(repair.site));
  const box = extentOf(repair.site, repair);
  return Math.max(box.width, box.height);
}

/** Middle of the site's box. */
export function siteMiddle(site: Site, width: number): Point {
  const box = extentOf(site, { width, softness: 0, flow: 1 });
  return [box.x + (box.width - 1) / 2, box.y + (box.height - 1) / 2];
}

/** The same repair somewhere else. */
export function movedBy(repair: Repair, dx: number, dy: number): Repair {
  return searchedAnew({
    ...repair,
    site: moveShape<Site>(repair.site, Math.round(dx), Math.round(dy)),
  });
}

/** A repair whose site changed: a fill must be searched again. */
export function searchedAnew(repair: Repair): Repair {
  const { method } = repair;
  if (method.kind !== 'fill') return repair;
  return { ...repair, method: { ...method, search: crypto.randomUUID() } };
}

/** Whether a picture point lies in a repair's site. */
export function hits(repair: Repair, [x, y]: Point, frame: Rect): boolean {
  const box = extentOf(repair.site, repair);
  if (x < box.x || y < box.y || x > box.x + box.width || y > box.y + box.height) return false;
  const { rect, values } = coverageOf(repair.site, repair, frame);
  const px = Math.round(x) - rect.x;
  const py = Math.round(y) - rect.y;
  if (px < 0 || py < 0 || px >= rect.width || py >= rect.height) return false;
  return values[py * rect.width + px]! > 0;
}

export function repairEdit(repair: Repair): Edit {
  return { entity: 'repair', id: repair.id, after: repair };
}

export function layerEdit(layer: Layer): Edit {
  return { entity: 'layer', id: layer.id, after: layer };
}

/** A position after everything in the list. */
export function positionAfter(list: readonly { readonly position: number }[]): number {
  return list.reduce((most, item) => Math.max(most, item.position + 1), 0);
}

/** Edits that put the item at `index` of an ordered list one place up or down. */
export function swapEdits<T extends { readonly id: string; readonly position: number }>(
  ordered: readonly T[],
  index: number,
  by: -1 | 1,
  edit: (item: T) => Edit,
): Edit[] {
  const a = ordered[index];
  const b = ordered[index + by];
  if (!a || !b) return [];
  // Positions may be equal in old records: numbering the whole list makes the swap certain.
  const order = [...ordered];
  order[index] = b;
  order[index + by] = a;
  return order.map((item, position) => edit({ ...item, position }));
}
