import { MOST_PIXELS } from '@tersum/core';
import type { Delta, Edit } from '../schema/change.js';
import type { Size } from '../render/canvas.js';
import { canvasOfRecords, sidesOf } from '../render/canvas.js';
import type { Records } from '../schema/records.js';

/** A change that does not fit the records: the message says why, for the person. */
export class BadChange extends Error {}

/** Where the records of every kind are kept. */
const SHELVES = {
  layer: 'layers',
  repair: 'repairs',
  tone: 'tones',
  frame: 'frames',
  preparation: 'preparations',
} as const satisfies Record<Edit['entity'], keyof Records>;

/** The records after `edits`. Records keep the order they had; new ones come last. @throws BadChange */
export function applyEdits(records: Records, edits: readonly Edit[]): Records {
  let after = records;
  for (const edit of edits) {
    if (edit.after && edit.after.id !== edit.id)
      throw new BadChange('A record cannot change its name.');
    after = put(after, edit);
  }
  const layers = new Set(after.layers.map((l) => l.id));
  if (after.repairs.some((r) => !layers.has(r.layerId)))
    throw new BadChange('Every repair needs a repair layer.');
  if (after.frames.length > 1) throw new BadChange('A picture has one frame.');
  if (after.repairs.filter((r) => sidesOf(r.method)).length > 1)
    throw new BadChange('A picture is widened once: change the widening it has.');
  if (after.preparations.length > 1) throw new BadChange('A picture is prepared once.');
  return after;
}

/** @throws BadChange when a picture of a size has nothing left by its records, or becomes larger than can be rendered */
export function expectCanvas(size: Size, records: Records): void {
  const { width, height } = canvasOfRecords(size, records);
  if (width < 1 || height < 1) throw new BadChange('Nothing of the picture would be left.');
  if (width * height > MOST_PIXELS)
    throw new BadChange(
      `With these sides the picture has ${width} x ${height} pixels. Up to ${MOST_PIXELS / 1e6} megapixels can be rendered.`,
    );
}

/** What `edits` would change, with the state before; edits that change nothing are left out. */
export function deltasOf(records: Records, edits: readonly Edit[]): Delta[] {
  return edits.flatMap((edit): Delta[] => {
    const shelf: readonly { readonly id: string }[] = records[SHELVES[edit.entity]];
    const before = shelf.find((r) => r.id === edit.id) ?? null;
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

function put(records: Records, { entity, id, after }: Edit): Records {
  const name = SHELVES[entity];
  const shelf: readonly { readonly id: string }[] = records[name];
  const at = shelf.findIndex((r) => r.id === id);
  const next = [...shelf];
  if (after === null) {
    if (at >= 0) next.splice(at, 1);
  } else if (at >= 0) next[at] = after;
  else next.push(after);
  return { ...records, [name]: next };
}
