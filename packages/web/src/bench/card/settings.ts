import type { MethodKind, Repair } from '@tersum/document';
import { WIDTH_LIMITS } from '@tersum/document';
import type { Bench } from '../model/bench.js';
import { USUAL_SOFTNESS } from '../model/bench.js';
import { METHOD_NAMES, repairEdit, searchedAnew } from '../model/repairs.js';

/** Settings that a repair and the next repair share. */
export interface Settings {
  readonly width: number;
  readonly softness: number;
  readonly flow: number;
  readonly strength: number;
}

/** Chooses the method of the next repair. */
export function chooseMethod(bench: Bench, method: MethodKind): true {
  bench.setTool({ method, softness: USUAL_SOFTNESS[method] });
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

/** Changes the method of a repair that is already there. */
export async function changeMethod(
  bench: Bench,
  repair: Repair,
  method: MethodKind,
): Promise<void> {
  if (method === repair.method.kind) return;
  const label = `Change to ${METHOD_NAMES[method].toLowerCase()}`;
  if (method === 'fill') {
    const search = crypto.randomUUID();
    const filled: Repair = {
      ...repair,
      softness: 0,
      method: { kind: 'fill', search, seed: 1, adapt: 1 },
    };
    return bench.change(label, [repairEdit(filled)]);
  }
  const donor =
    repair.method.kind === 'fill' ? await bench.searchDonor(repair) : repair.method.donor;
  if (donor)
    return bench.change(label, [repairEdit({ ...repair, method: { kind: method, donor } })]);
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

/** Lets the program choose the donor of a clone or graft. */
export async function donorAgain(bench: Bench, repair: Repair): Promise<void> {
  if (repair.method.kind === 'fill') return;
  const donor = await bench.searchDonor(repair);
  if (donor)
    await bench.change('Search a donor', [
      repairEdit({ ...repair, method: { kind: repair.method.kind, donor } }),
    ]);
}
