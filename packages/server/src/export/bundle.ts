import type { Zippable } from 'fflate';
import { zipSync } from 'fflate';
import { readFile } from 'node:fs/promises';
import type { Bundle, Records } from '@tersum/document';
import { BUNDLE, picturesRead } from '@tersum/document';
import type { Originals } from '../render/originals.js';
import type { RecordStore } from '../store/records.js';
import type { SearchStore } from '../store/searches.js';

/** Files that are packed already. */
const STORED = { level: 0 } as const;

/** A picture's job as a zip that renders to the same samples elsewhere. */
export async function bundleOf(
  pictureId: string,
  records: RecordStore,
  originals: Originals,
  searches: SearchStore,
): Promise<Uint8Array> {
  const picture = records.picture(pictureId);
  const { layers, repairs, tones, frames, preparations } = records.records(pictureId);
  const files: Zippable = {};
  const addOriginal = async (hash: string): Promise<void> => {
    files[BUNDLE.original(hash)] = [await readFile(originals.pathOf(hash)), STORED];
  };
  await addOriginal(picture.original);
  const elsewhere: Bundle['elsewhere'] = {};
  const elsewherePrepared: Bundle['elsewherePrepared'] = {};
  for (const other of copiedFrom(repairs)) {
    const row = records.find(other);
    if (row?.jobId !== picture.jobId) continue;
    elsewhere[other] = row.original;
    const [how] = records.records(other).preparations;
    if (how) elsewherePrepared[other] = how;
    await addOriginal(row.original);
  }
  const found: Bundle['searches'] = {};
  for (const { method } of repairs) {
    if (method.kind !== 'fill') continue;
    const packed = await searches.packed(method.search);
    if (!packed) continue;
    found[method.search] = { map: packed.hash, below: packed.below };
    files[BUNDLE.map(packed.hash)] = [packed.bytes, STORED];
  }
  const bundle: Bundle = {
    format: 'tersum-job',
    version: 1,
    picture,
    layers: [...layers],
    repairs: [...repairs],
    tones: [...tones],
    frames: [...frames],
    preparations: [...preparations],
    searches: found,
    elsewhere,
    elsewherePrepared,
  };
  return zipSync({ [BUNDLE.job]: Buffer.from(JSON.stringify(bundle, null, 1)), ...files });
}

function copiedFrom(repairs: Records['repairs']): Set<string> {
  return new Set(repairs.flatMap((r) => picturesRead(r.method)));
}
