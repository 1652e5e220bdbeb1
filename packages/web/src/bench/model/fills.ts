import type { Point } from '@tersum/core';
import type { Edit, FillWishes, Method, Repair } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { heatOf } from './overlays.js';
import { repairEdit } from './repairs.js';

export type FillMethod = Extract<Method, { readonly kind: 'fill' }>;

/** Asks a fill for something else: what changes what is searched needs a new search. */
export function askedFor(repair: Repair, wishes: Partial<FillWishes>): Repair {
  if (repair.method.kind !== 'fill') return repair;
  return { ...repair, method: { ...repair.method, ...wishes, search: crypto.randomUUID() } };
}

export function ask(
  bench: Bench,
  repair: Repair,
  label: string,
  wishes: Partial<FillWishes>,
): Promise<void> {
  return bench.change(label, [repairEdit(askedFor(repair, wishes))]);
}

/** Whether a fill is to have the grain of its surroundings; needs no new search. */
export function giveGrain(bench: Bench, repair: Repair, on: boolean): Promise<void> {
  return bench.change(on ? 'Give grain back' : 'No grain given back', [
    repairEdit(withGrain(repair, on)),
  ]);
}

export function withGrain(repair: Repair, on = true): Repair {
  if (repair.method.kind !== 'fill') return repair;
  return { ...repair, method: { ...repair.method, grain: on ? 1 : 0 } };
}

let computing: AbortController | null = null;

/** Has three fillings computed at once, and tries the best one out; more each time it is asked. */
export async function findVariants(bench: Bench, repair: Repair): Promise<void> {
  const { variants, pictureId } = bench.store.getState();
  const known = variants?.repair === repair.id ? (variants.list ?? []) : [];
  computing?.abort();
  const mine = (computing = new AbortController());
  bench.set({ variants: { repair: repair.id, list: null, at: 0 }, offers: null });
  try {
    const from = known.length + 1;
    const found = await api.findVariants(pictureId, repair, from, mine.signal);
    if (bench.store.getState().variants?.repair !== repair.id) return;
    const list = [...known, ...found].sort((a, b) => a.score - b.score);
    bench.set({ variants: { repair: repair.id, list, at: 0 } });
    tryVariant(bench, repair, 0);
  } catch (error) {
    if (!mine.signal.aborted) bench.set({ variants: null, notice: messageOf(error) });
  }
}

/** Goes to another variant and tries it out. @returns whether there are any */
export function walkVariants(bench: Bench, step: number): boolean {
  const { variants, records } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === variants?.repair);
  if (!variants?.list || !repair) return false;
  const at = (variants.at + step + variants.list.length) % variants.list.length;
  bench.set({ variants: { ...variants, at } });
  tryVariant(bench, repair, at);
  return true;
}

/** Keeps the variant that is being tried out. */
export function takeVariant(bench: Bench): boolean {
  const { variants, records } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === variants?.repair);
  if (!variants?.list || !repair) return false;
  const chosen = withVariant(repair, variants.list[variants.at]!);
  bench.set({ variants: null });
  void bench.change('Choose a variant', [repairEdit(chosen)]);
  return true;
}

/** Puts the variants away, also while they are being computed; the repair stays as it was. */
export function dropVariants(bench: Bench): void {
  computing?.abort();
  bench.set({ variants: null, preview: null });
}

function withVariant(
  repair: Repair,
  { search, seed, lean }: Pick<FillWishes, 'search' | 'seed' | 'lean'>,
): Repair {
  if (repair.method.kind !== 'fill') return repair;
  return { ...repair, method: { ...repair.method, search, seed, lean } };
}

function tryVariant(bench: Bench, repair: Repair, at: number): void {
  const variant = bench.store.getState().variants?.list?.[at];
  if (variant) bench.tryOut([repairEdit(withVariant(repair, variant))]);
}

/** Lets the edges that enter the site be found, and guides be laid across it. */
export async function findGuides(bench: Bench, repair: Repair): Promise<void> {
  try {
    const guides = await api.findGuides(bench.store.getState().pictureId, repair);
    if (!guides.length)
      return bench.set({
        notice: 'No edge was found that goes on across this site. Draw a guide along one.',
        fillHand: 'guide',
      });
    await ask(bench, repair, 'Find guides', { guides });
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  }
}

/** Adds a guide along a drawn line: its ends and its middle can be bent afterwards. */
export function addGuide(bench: Bench, repair: Repair, line: readonly Point[]): void {
  const { method } = repair;
  if (method.kind !== 'fill' || line.length < 2) return;
  const at = (share: number): [number, number] => {
    const [x, y] = line[Math.round(share * (line.length - 1))]!;
    return [x, y];
  };
  const guide = { points: line.length > 2 ? [at(0), at(0.5), at(1)] : [at(0), at(1)] };
  bench.set({ fillHand: 'pick' });
  void ask(bench, repair, 'Add a guide', { guides: [...method.guides, guide] });
}

/** Cuts a fill into portions that are filled one after the other, each a repair of its own. */
export async function cutIntoPortions(bench: Bench, repair: Repair): Promise<void> {
  const { pictureId, records } = bench.store.getState();
  if (!records || repair.method.kind !== 'fill') return;
  try {
    const portions = await api.findPortions(pictureId, repair);
    if (portions.length < 2)
      return bench.set({
        notice:
          'This site lies on one ground and is no longer than broad: it is best filled whole.',
      });
    const { method } = repair;
    const above = records.repairs.filter(
      (r) => r.layerId === repair.layerId && r.position > repair.position,
    );
    const room = above.reduce((least, r) => Math.min(least, r.position), repair.position + 1);
    const edits = portions.map((points, k): Edit =>
      repairEdit({
        ...repair,
        id: k === 0 ? repair.id : crypto.randomUUID(),
        position: repair.position + ((room - repair.position) * k) / portions.length,
        site: { kind: 'outline', points },
        width: 1,
        softness: 0,
        reason: `Portion ${k + 1} of ${portions.length}`,
        method: { ...method, search: crypto.randomUUID() },
      }),
    );
    await bench.change(`Cut into ${portions.length} portions`, edits);
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  }
}

/** Shows or hides how sure the open fill is. */
export async function toggleHeat(bench: Bench, repair: Repair): Promise<void> {
  const { heat, pictureId } = bench.store.getState();
  if (heat) return bench.set({ heat: null });
  if (repair.method.kind !== 'fill') return;
  try {
    const { rect, samples } = await api.getConfidence(pictureId, repair.method.search);
    bench.set({ heat: await heatOf(repair.id, rect, samples) });
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  }
}
