import type { UnsurePlace } from '@tersum/core';
import type { PictureRecords, Repair, View } from '@tersum/document';
import { activeRepairs } from '@tersum/document';
import { findDonors, getAdvice } from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { freshMethod, USUAL_SOFTNESS } from './fresh.js';
import { hits } from './repairs.js';
import { shownCanvas } from './state.js';

/** A place where a fill wants touching up. */
export interface TouchUp {
  readonly repair: Repair;
  readonly place: UnsurePlace;
}

/** Unsure places of fills that nothing later has mended. */
export function touchUpsOf(records: PictureRecords, view: View | null): TouchUp[] {
  if (!view) return [];
  const order = activeRepairs(records);
  const frame = shownCanvas({ view }, records.picture);
  return order.flatMap((repair, k) => {
    const later = order.slice(k + 1);
    return (view.unsure[repair.id] ?? [])
      .filter(({ x, y }) => !later.some((r) => hits(r, [x, y], frame)))
      .map((place) => ({ repair, place }));
  });
}

/** Brings a place to the middle of the table, large enough to be judged. */
export function goTo(bench: Bench, { place }: TouchUp): void {
  const { viewport } = bench.store.getState();
  if (!viewport) return;
  bench.set({
    viewport: { ...viewport, x: place.x, y: place.y, zoom: Math.max(2, viewport.zoom) },
  });
}

/**
 * Mends a place over the fill, by clone or graft as its surroundings advise; deep inside a fill, where there is nothing
 * to copy near by, by filling it once more.
 */
export async function touchUp(bench: Bench, { repair, place }: TouchUp): Promise<void> {
  const { pictureId, tool } = bench.store.getState();
  goTo(bench, { repair, place });
  const at: [number, number] = [place.x, place.y];
  const dab: Repair = {
    ...repair,
    id: crypto.randomUUID(),
    site: { kind: 'dab', at },
    width: place.width,
    method: freshMethod('graft', tool),
  };
  const [answer, [found]] = await Promise.all([
    getAdvice(pictureId, dab).catch(() => null),
    findDonors(pictureId, dab).catch(() => []),
  ]);
  const copy = answer?.advice?.method === 'clone' ? 'clone' : 'graft';
  const method = found ? copy : 'fill';
  bench.set({ selected: null, also: [] });
  bench.setTool({
    method,
    softness: USUAL_SOFTNESS[method],
    donor: found ? { kind: 'shift', shift: found.donor } : { kind: 'search' },
  });
  await bench.mend({ kind: 'dab', at }, place.width);
  bench.setTool({ donor: { kind: 'search' } });
}
