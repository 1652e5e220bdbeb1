import type { Preparation } from '@tersum/document';
import type { Bench } from '../bench/model/bench.js';

const NOTHING = { grey: null, blocks: null } as const;

/** What the picture's preparation is; nothing where there is none. */
export function preparationOf(bench: Bench): Omit<Preparation, 'id'> & { readonly id?: string } {
  return bench.store.getState().records?.preparations[0] ?? NOTHING;
}

/** Prepares the picture otherwise than before: a record that can be changed, taken away and undone. */
export async function prepareAs(
  bench: Bench,
  part: Partial<Omit<Preparation, 'id'>>,
  label: string,
): Promise<void> {
  const before = preparationOf(bench);
  const id = before.id ?? crypto.randomUUID();
  const after: Preparation = { id, grey: before.grey, blocks: before.blocks, ...part };
  const isNothing = !after.grey && !after.blocks;
  if (isNothing && !before.id) return;
  await bench.change(label, [{ entity: 'preparation', id, after: isNothing ? null : after }]);
}
