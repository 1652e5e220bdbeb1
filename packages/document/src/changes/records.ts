import type { Delta, Edit } from '../schema/change.js';
import type { Layer, Records, Repair } from '../schema/repair.js';

/** A change that does not fit the records: the message says why, for the person. */
export class BadChange extends Error {}

/** The records after `edits`. Records keep the order they had; new ones come last. @throws BadChange */
export function applyEdits(records: Records, edits: readonly Edit[]): Records {
  const layers = new Map(records.layers.map((l) => [l.id, l]));
  const repairs = new Map(records.repairs.map((r) => [r.id, r]));
  for (const edit of edits) {
    if (edit.after && edit.after.id !== edit.id)
      throw new BadChange('A record cannot change its name.');
    if (edit.entity === 'layer') put<Layer>(layers, edit.id, edit.after);
    else put<Repair>(repairs, edit.id, edit.after);
  }
  for (const repair of repairs.values())
    if (!layers.has(repair.layerId)) throw new BadChange('Every repair needs a repair layer.');
  return { layers: [...layers.values()], repairs: [...repairs.values()] };
}

/** What `edits` would change, with the state before; edits that change nothing are left out. */
export function deltasOf(records: Records, edits: readonly Edit[]): Delta[] {
  return edits.flatMap((edit): Delta[] => {
    const before =
      edit.entity === 'layer'
        ? (records.layers.find((l) => l.id === edit.id) ?? null)
        : (records.repairs.find((r) => r.id === edit.id) ?? null);
    if (JSON.stringify(before) === JSON.stringify(edit.after)) return [];
    return [{ ...edit, before } as Delta];
  });
}

/** The edits that take `deltas` back. */
export function reverse(deltas: readonly Delta[]): Edit[] {
  return [...deltas]
    .reverse()
    .map(({ entity, id, before }) => ({ entity, id, after: before }) as Edit);
}

/** The edits that do `deltas` again. */
export function repeat(deltas: readonly Delta[]): Edit[] {
  return deltas.map(({ entity, id, after }) => ({ entity, id, after }) as Edit);
}

function put<T>(map: Map<string, T>, id: string, after: T | null): void {
  if (after === null) map.delete(id);
  else map.set(id, after);
}
