import type { Advice } from '@tersum/core';
import type { MethodKind, Repair } from '@tersum/document';
import { isCopy, WIDTH_LIMITS, METHOD_NAMES } from '@tersum/document';
import type { Bench } from '../model/bench.js';
import { donorOf } from '../model/donors.js';
import { freshMethod, USUAL_SHAPE, USUAL_SOFTNESS } from '../model/fresh.js';
import { repairEdit, searchedAnew } from '../model/repairs.js';

/** Settings that a repair and the next repair share. */
export interface Settings {
  readonly width: number;
  readonly softness: number;
  readonly flow: number;
  readonly strength: number;
}

/** Chooses the method of the next repair, and the way it is usually drawn. */
export function chooseMethod(bench: Bench, method: MethodKind): true {
  const { tool } = bench.store.getState();
  const usual = USUAL_SHAPE[method];
  // Patches and pieces are areas, pushes are strokes; other methods take any site.
  const area = tool.shape === 'outline' || tool.shape === 'rectangle' || tool.shape === 'thing';
  const shape = usual && !(usual === 'outline' && area) ? usual : tool.shape;
  bench.setTool({ method, shape, softness: USUAL_SOFTNESS[method] });
  return true;
}

export function setWidth(bench: Bench, width: number): true {
  bench.setTool({ width: Math.min(WIDTH_LIMITS.most, Math.max(WIDTH_LIMITS.least, width)) });
  return true;
}

/** The repair with one setting changed. A fill whose area changes is searched again. */
export function withSetting(repair: Repair, setting: keyof Settings, value: number): Repair {
  const changed = { ...repair, [setting]: value };
  return setting === 'width' ? searchedAnew(changed) : changed;
}

/** Shows a setting while it is dragged, unless it asks for a new search. */
export function trySetting(
  bench: Bench,
  repair: Repair,
  setting: keyof Settings,
  value: number,
): void {
  if (setting === 'width' && repair.method.kind === 'fill') return;
  bench.tryOut([repairEdit(withSetting(repair, setting, value))]);
}

/** Changes the method of a repair that is already there; the person's own choice, so advice is quiet from now on. */
export async function changeMethod(bench: Bench, repair: Repair, kind: MethodKind): Promise<void> {
  if (kind === repair.method.kind) return;
  beQuiet(bench, repair.id);
  const changed = await withMethod(bench, repair, kind);
  if (changed)
    await bench.change(`Change to ${METHOD_NAMES[kind].toLowerCase()}`, [repairEdit(changed)]);
}

/** Does what is advised. */
export async function takeAdvice(bench: Bench, repair: Repair, advice: Advice): Promise<void> {
  const changed = await withMethod(bench, repair, advice.method);
  if (!changed) return;
  const sized = {
    ...changed,
    width: advice.width ?? repair.width,
    softness: advice.softness,
    flow: advice.flow,
    reason: advice.reason.slice(0, 400),
  };
  bench.setTool({ keepStep: advice.keepStep });
  await bench.change('Take the advice', [repairEdit(searchedAnew(sized))]);
}

/** No more advice on a repair: the person has decided. */
export function beQuiet(bench: Bench, id: string): void {
  bench.set({ quiet: new Set([...bench.store.getState().quiet, id]) });
}

async function withMethod(bench: Bench, repair: Repair, kind: MethodKind): Promise<Repair | null> {
  const method = freshMethod(kind, bench.store.getState().tool);
  const changed: Repair = { ...repair, method, softness: kind === 'fill' ? 0 : repair.softness };
  if (!isCopy(method) && method.kind !== 'piece') return changed;
  const donor = donorOf(repair) ?? (await bench.searchDonor(changed));
  return donor && { ...changed, method: { ...method, donor } };
}

/** Asks for another search of a fill, with the next seed. */
export function searchAgain(bench: Bench, repair: Repair): Promise<void> {
  if (repair.method.kind !== 'fill') return Promise.resolve();
  const again = searchedAnew({
    ...repair,
    method: { ...repair.method, seed: repair.method.seed + 1 },
  });
  return bench.change('Search again', [repairEdit(again)]);
}
