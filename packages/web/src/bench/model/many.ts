import type { SingleShape } from '@tersum/core';
import { pathOf } from '@tersum/core';
import type { Edit, Repair, Site } from '@tersum/document';
import { isCopy, sidesOf } from '@tersum/document';
import { repairEdit, searchedAnew } from './repairs.js';

/** One repair out of several of one method and layer, done where the first was; null when they differ too much. */
export function joined(repairs: readonly Repair[]): Edit[] | null {
  const [first, ...rest] = repairs;
  if (!first || !rest.length || !canJoin(repairs)) return null;
  const parts = repairs.flatMap(partsOf);
  const site: Site = { kind: 'parts', parts };
  return [
    repairEdit(searchedAnew({ ...first, site })),
    ...rest.map((r) => ({ entity: 'repair' as const, id: r.id, after: null })),
  ];
}

/** Whether repairs are so alike that one record can stand for all: copies must keep the same step. */
export function canJoin(repairs: readonly Repair[]): boolean {
  const [first, ...rest] = repairs;
  if (!first || !rest.length || first.method.kind === 'piece' || first.method.kind === 'push')
    return false;
  if (repairs.some((r) => sidesOf(r.method))) return false;
  return rest.every(
    (r) =>
      r.layerId === first.layerId &&
      r.method.kind === first.method.kind &&
      (!isCopy(r.method) || JSON.stringify(stepOf(r)) === JSON.stringify(stepOf(first))),
  );
}

/** The repair in two or more: its parts, or its line cut in the middle. Null when there is nothing to cut. */
export function split(repair: Repair): Edit[] | null {
  const pieces = cut(repair);
  if (pieces.length < 2) return null;
  return pieces.map(({ site, width }, k) =>
    repairEdit(
      searchedAnew({
        ...repair,
        id: k ? crypto.randomUUID() : repair.id,
        position: repair.position + k / pieces.length,
        site,
        width,
      }),
    ),
  );
}

/** Whether there is anything to cut. */
export function canSplit(repair: Repair): boolean {
  return cut(repair).length > 1;
}

function cut({ site, width, method }: Repair): { site: Site; width: number }[] {
  if (sidesOf(method)) return [];
  if (site.kind === 'parts')
    return site.parts.map(({ shape, width }) => ({ site: shape as Site, width }));
  if (site.kind === 'stroke' && site.points.length > 2) {
    const half = site.points.length >> 1;
    return [site.points.slice(0, half + 1), site.points.slice(half)].map((points) => ({
      site: { kind: 'stroke', points },
      width,
    }));
  }
  if (site.kind === 'chain') {
    const { points, bends, shares } = site;
    if (points.length > 2) {
      const half = points.length >> 1;
      return [
        {
          points: points.slice(0, half + 1),
          bends: bends.slice(0, half),
          shares: shares?.slice(0, half + 1),
        },
        { points: points.slice(half), bends: bends.slice(half), shares: shares?.slice(half) },
      ].map((run) => ({ site: { kind: 'chain', ...run }, width }));
    }
    const path = pathOf(site).map(([x, y]): [number, number] => [x, y]);
    if (path.length < 3) {
      const [[ax, ay], [bx, by]] = points as [[number, number], [number, number]];
      path.splice(1, path.length - 1, [(ax + bx) / 2, (ay + by) / 2], [bx, by]);
    }
    const half = path.length >> 1;
    const [first, last] = [shares?.[0] ?? 1, shares?.[1] ?? 1];
    const along = path.map((_, k) => first + ((last - first) * k) / (path.length - 1));
    return [
      { points: path.slice(0, half + 1), shares: along.slice(0, half + 1) },
      { points: path.slice(half), shares: along.slice(half) },
    ].map((run) => ({
      site: {
        kind: 'chain',
        points: run.points,
        bends: run.points.slice(1).map(() => 0),
        ...(shares ? { shares: run.shares } : {}),
      },
      width,
    }));
  }
  return [];
}

function partsOf({ site, width }: Repair): { shape: SingleSite; width: number }[] {
  return site.kind === 'parts' ? [...site.parts] : [{ shape: site, width }];
}

type SingleSite = Exclude<Site, { kind: 'parts' }> & SingleShape;

function stepOf({ method }: Repair): unknown {
  return isCopy(method) ? [method.donor, method.other] : null;
}
