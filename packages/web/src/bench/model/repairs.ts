import type { Point, Rect, Sides } from '@tersum/core';
import { extentOf, moveShape, pathLength, pathOf } from '@tersum/core';
import type { Edit, Layer, Records, Repair, Site } from '@tersum/document';
import { layersInOrder, repairsOfLayer, sidesOf, siteBox, siteCoverage } from '@tersum/document';
import { donorOf, holdsDonor, withDonor } from './donors.js';

/** What a repair is called by its site. */
const SITE_NAMES: Record<Site['kind'], string> = {
  dab: 'dab',
  stroke: 'stroke',
  chain: 'chain',
  outline: 'outline',
  rectangle: 'rectangle',
  parts: 'several parts',
};

export function siteName(repair: Repair): string {
  if (sidesOf(repair.method)) return repair.method.kind === 'fill' ? 'new sides' : 'the canvas';
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

/** The same repair somewhere else. What was lifted or outlined as good stays where it was. */
export function movedBy(repair: Repair, dx: number, dy: number): Repair {
  if (sidesOf(repair.method)) return repair;
  const [x, y] = [Math.round(dx), Math.round(dy)];
  const { method } = repair;
  const site = moveShape<Site>(repair.site, x, y);
  if (!holdsDonor(repair)) return searchedAnew({ ...repair, site });
  const donor = donorOf(repair)!;
  const moved = withDonor({ ...repair, site }, { dx: donor.dx - x, dy: donor.dy - y });
  if (method.kind !== 'piece' || moved.method.kind !== 'piece') return moved;
  const along = ([px, py]: readonly [number, number]): [number, number] => [px + x, py + y];
  return {
    ...moved,
    method: {
      ...moved.method,
      pins: method.pins.map(({ from, to }) => ({ from: along(from), to: along(to) })),
      reveal: method.reveal.map((r) => ({ ...r, points: r.points.map(along) })),
    },
  };
}

/** A repair whose site changed: a fill must be searched again. */
export function searchedAnew(repair: Repair): Repair {
  const { method } = repair;
  if (method.kind !== 'fill') return repair;
  return { ...repair, method: { ...method, search: crypto.randomUUID() } };
}

/** Whether a picture point lies in the area a repair changes; of a stretch only what is outside of the original. */
export function hits(repair: Repair, [x, y]: Point, frame: Rect): boolean {
  if (repair.method.kind === 'stretch' && isInOriginal(repair.method.sides, [x, y], frame))
    return false;
  const box = siteBox(repair);
  if (x < box.x || y < box.y || x > box.x + box.width || y > box.y + box.height) return false;
  const { rect, values } = siteCoverage(repair, frame);
  const px = Math.round(x) - rect.x;
  const py = Math.round(y) - rect.y;
  if (px < 0 || py < 0 || px >= rect.width || py >= rect.height) return false;
  return values[py * rect.width + px]! > 0;
}

function isInOriginal({ left, right, top, bottom }: Sides, [x, y]: Point, canvas: Rect): boolean {
  const [width, height] = [canvas.width - left - right, canvas.height - top - bottom];
  return x >= 0 && y >= 0 && x < width && y < height;
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
