import { grow } from '@tersum/core';
import type { Repair, SourceArea } from '@tersum/document';
import { damageNear, siteBox } from '@tersum/document';
import type { FindingStore } from '../store/findings.js';
import type { RecordStore } from '../store/records.js';

/** px round a site within which its fill looks for donors. */
const REACH = 800;

/** Damage round a repair's site that no repair mends yet. */
export function unmended(
  records: RecordStore,
  findings: FindingStore,
  id: string,
  repair: Repair,
): SourceArea[] {
  const { settings, state } = findings.survey(id);
  if (state !== 'ready') return [];
  const standing = new Set(records.records(id).repairs.map((r) => r.id));
  const { ppi } = records.picture(id);
  const open = { findings: findings.list(id), settings, standing, ppi };
  return damageNear(open, grow(siteBox(repair), REACH));
}
