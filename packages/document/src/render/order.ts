import type { Layer, Repair } from '../schema/repair.js';
import type { Records } from '../schema/records.js';

/** Layers bottom to top. */
export function layersInOrder(records: Records): Layer[] {
  return [...records.layers].sort(byPosition);
}

/** Repairs of a layer, first done first. */
export function repairsOfLayer(records: Records, layerId: string): Repair[] {
  return records.repairs.filter((r) => r.layerId === layerId).sort(byPosition);
}

/** The repairs that are rendered, in rendering order: those switched on, of visible layers. */
export function activeRepairs(records: Records): Repair[] {
  return layersInOrder(records)
    .filter((layer) => layer.visible)
    .flatMap((layer) => repairsOfLayer(records, layer.id).filter((r) => r.enabled));
}

function byPosition(
  a: { position: number; id: string },
  b: { position: number; id: string },
): number {
  return a.position - b.position || (a.id < b.id ? -1 : 1);
}
