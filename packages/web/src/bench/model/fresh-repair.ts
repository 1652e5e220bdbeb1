import type { Edit, Layer, Method, PictureRecords, Repair, Site } from '@tersum/document';
import { layerEdit, positionAfter, repairEdit } from './repairs.js';
import type { Tool } from './state.js';

/** A repair that is about to be made, and the layer it goes on. */
export interface Fresh {
  readonly repair: Repair;
  /** The layer, when there is one already. */
  readonly layer: Layer | undefined;
  /** What keeps the repair as it ends up, and its layer with it where there was none. */
  edits(repair: Repair): Edit[];
}

/** A repair by the tool in hand, above all others of its layer. */
export function freshRepair(
  records: PictureRecords,
  tool: Tool,
  site: Site,
  method: Method,
  more: Partial<Repair> = {},
): Fresh {
  const layerId = tool.layerId ?? topLayer(records);
  const layer = records.layers.find((l) => l.id === layerId);
  const added: Layer = { id: crypto.randomUUID(), name: 'Repairs', visible: true, position: 0 };
  const { width, softness, flow, strength } = tool;
  return {
    layer,
    repair: {
      id: crypto.randomUUID(),
      layerId: (layer ?? added).id,
      position: positionAfter(records.repairs.filter((r) => r.layerId === layerId)),
      enabled: true,
      site,
      width,
      softness,
      flow,
      strength,
      method,
      reason: '',
      createdAt: new Date().toISOString(),
      ...more,
    },
    edits: (repair) => [...(layer ? [] : [layerEdit(added)]), repairEdit(repair)],
  };
}

export function topLayer(records: PictureRecords): string | null {
  return [...records.layers].sort((a, b) => b.position - a.position)[0]?.id ?? null;
}
