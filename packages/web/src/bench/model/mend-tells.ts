import type { Edit, PictureRecords, Repair, RepairTell } from '@tersum/document';
import { plainFill } from '@tersum/document';
import type { Bench } from './bench.js';
import { freshRepair } from './fresh-repair.js';
import { repairEdit } from './repairs.js';
import type { TellMend } from './tell-mends.js';
import { mendFor } from './tell-mends.js';

/** The mend of a tell of any kind: also of what draws the eye in the whole picture, which a fill takes out. */
export function mendOf(bench: Bench, tell: RepairTell): (TellMend & { edits: Editing }) | null {
  const { records, pictureId } = bench.store.getState();
  if (!records) return null;
  if (tell.repair === null) return tell.outlines?.length ? takenOut(bench, records, tell) : null;
  const repair = records.repairs.find((r) => r.id === tell.repair);
  const mend = repair && mendFor(pictureId, repair, tell);
  return mend ? { ...mend, edits: (better) => [repairEdit(better)] } : null;
}

type Editing = (better: Repair) => Edit[];

/** Mends a tell as advised. @returns whether something was changed */
export async function mendTell(bench: Bench, tell: RepairTell): Promise<boolean> {
  const mend = mendOf(bench, tell);
  const better = await mend?.better();
  if (!mend || !better) {
    bench.set({
      notice: 'No better donor was found near by. Hold D and click where to copy from.',
    });
    return false;
  }
  await bench.change(mend.label, mend.edits(better));
  return true;
}

/**
 * Mends many tells as advised, in one change: of a repair only the first one's advice is taken, but of a sweep's spots each.
 * @returns how many
 */
export async function mendTells(bench: Bench, tells: readonly RepairTell[]): Promise<number> {
  const edits: Edit[] = [];
  const changed = new Set<string>();
  let mended = 0;
  for (const tell of tells) {
    const mend = mendOf(bench, tell);
    if (!mend) continue;
    const key = mend.local ? keyOf(tell) : (tell.repair ?? keyOf(tell));
    if (changed.has(key)) continue;
    changed.add(key);
    const better = await mend.better();
    if (!better) continue;
    edits.push(...mend.edits(better));
    mended++;
  }
  if (mended) await bench.change(mended === 1 ? 'Mend a tell' : `Mend ${mended} tells`, edits);
  return mended;
}

const keyOf = ({ repair, box }: RepairTell): string => `${repair} ${box.x} ${box.y}`;

function takenOut(bench: Bench, records: PictureRecords, tell: RepairTell) {
  const { tool } = bench.store.getState();
  const parts = tell.outlines!.map((points) => ({
    shape: { kind: 'outline' as const, points },
    width: 1,
  }));
  const fresh = freshRepair(
    records,
    { ...tool, softness: 0, flow: 1, strength: 1 },
    { kind: 'parts', parts },
    plainFill(crypto.randomUUID()),
    { width: Math.max(1, Math.round(Math.min(tell.box.width, tell.box.height))) },
  );
  return {
    label: 'Take it out',
    better: () => Promise.resolve(fresh.repair),
    edits: fresh.edits,
  };
}
