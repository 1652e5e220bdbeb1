import type { Edit, Repair } from '@tersum/document';
import { plainFill, shiftDonor } from '@tersum/document';
import { fixedId } from './ids.js';

/** What a made-up repair says of itself; the rest is filled in. */
export type Sketch = Pick<Repair, 'site' | 'width' | 'method'> &
  Partial<Pick<Repair, 'softness' | 'strength' | 'reason' | 'enabled'>>;

const MORNING = '2026-11-02T09:30:00.000Z';

/** The edit that adds a repair. */
export function addRepair(name: string, layerId: string, position: number, sketch: Sketch): Edit {
  const repair: Repair = {
    id: fixedId(`repair ${name} ${position}`),
    layerId,
    position,
    enabled: true,
    softness: sketch.method.kind === 'fill' ? 0 : 0.2,
    flow: 1,
    strength: 1,
    reason: '',
    createdAt: MORNING,
    ...sketch,
  };
  return { entity: 'repair', id: repair.id, after: repair };
}

/** A fill with a search of its own. */
export function fillOf(name: string, seed = 1): Repair['method'] {
  return plainFill(fixedId(`search ${name}`), seed);
}

/** Spots mended by grafts from a donor beside each. */
export function spots(
  places: readonly [x: number, y: number, width: number, dx: number, dy: number][],
  reason: string,
): Sketch[] {
  return places.map(([x, y, width, dx, dy]) => ({
    site: { kind: 'dab', at: [x, y] },
    width,
    method: { kind: 'graft', donor: shiftDonor(dx, dy), other: null },
    reason,
  }));
}
