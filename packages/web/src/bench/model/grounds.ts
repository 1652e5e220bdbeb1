import type { Point } from '@tersum/core';
import type { GroundOffer, Repair, SourceArea } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { ask } from './fills.js';

/** Grounds that hold less of the ring than this are not asked for to begin with. */
const LEAST_RING = 0.02;

/** Shows the grounds around a fill; the first time only those that touch its ring are allowed. */
export async function showGrounds(bench: Bench, repair: Repair): Promise<void> {
  if (repair.method.kind !== 'fill') return;
  bench.set({ grounds: { repair: repair.id, list: null } });
  try {
    const list = await api.findGrounds(bench.store.getState().pictureId, repair);
    if (bench.store.getState().grounds?.repair !== repair.id) return;
    bench.set({ grounds: { repair: repair.id, list } });
    if (repair.method.areas.length) return;
    const unlikely = list.filter(({ ring }) => ring < LEAST_RING);
    if (!unlikely.length || unlikely.length === list.length) return;
    await ask(bench, repair, 'Allow the likely grounds', {
      areas: areasOf(list, (ground) => ground.ring >= LEAST_RING),
    });
  } catch (error) {
    bench.set({ grounds: null, notice: messageOf(error) });
  }
}

export function hideGrounds(bench: Bench): void {
  bench.set({ grounds: null, fillHand: 'pick' });
}

/** Whether a ground may supply pixels. */
export function isAllowed(repair: Repair, ground: GroundOffer): boolean {
  if (repair.method.kind !== 'fill') return true;
  const key = JSON.stringify(ground.outline);
  const own = repair.method.areas.find(
    ({ shape }) => shape.kind === 'outline' && JSON.stringify(shape.points) === key,
  );
  return own?.allow ?? true;
}

/** Allows a ground that was forbidden, or the other way round; scribbles stay. */
export function toggleGround(bench: Bench, repair: Repair, ground: GroundOffer): void {
  const { grounds } = bench.store.getState();
  if (repair.method.kind !== 'fill' || !grounds?.list) return;
  const allow = !isAllowed(repair, ground);
  const scribbles = repair.method.areas.filter(({ shape }) => shape.kind === 'stroke');
  const areas = areasOf(grounds.list, (g) => (g === ground ? allow : isAllowed(repair, g)));
  void ask(bench, repair, allow ? 'Allow a ground' : 'Forbid a ground', {
    areas: [...areas, ...scribbles],
  });
}

/** Allows or forbids what a stroke covers. */
export function scribble(
  bench: Bench,
  repair: Repair,
  points: readonly Point[],
  allow: boolean,
): void {
  if (repair.method.kind !== 'fill') return;
  const { width } = bench.store.getState().tool;
  const area: SourceArea = {
    allow,
    shape: { kind: 'stroke', points: points.map(([x, y]) => [x, y]) },
    width,
  };
  void ask(bench, repair, allow ? 'Allow an area' : 'Forbid an area', {
    areas: [...repair.method.areas, area],
  });
}

/** Larger grounds first, so that what lies within one has the last word. */
function areasOf(
  list: readonly GroundOffer[],
  allow: (ground: GroundOffer) => boolean,
): SourceArea[] {
  return [...list]
    .sort((a, b) => b.area - a.area)
    .map((ground) => ({
      allow: allow(ground),
      shape: { kind: 'outline', points: ground.outline },
      width: 1,
    }));
}
