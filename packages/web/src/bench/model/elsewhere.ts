import type { Repair } from '@tersum/document';
import { layersInOrder, sidesOf } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { layerEdit, positionAfter, repairEdit, searchedAnew } from './repairs.js';

/** Copies repairs to another picture of the job, at the same place. Fills are searched anew there; a widening stays. */
export async function copyToPicture(
  bench: Bench,
  repairs: readonly Repair[],
  pictureId: string,
): Promise<void> {
  try {
    const { picture, ...records } = await api.getRecords(pictureId);
    const top = layersInOrder(records).at(-1);
    const layer = top ?? { id: crypto.randomUUID(), name: 'Repairs', visible: true, position: 0 };
    const from = positionAfter(records.repairs.filter((r) => r.layerId === layer.id));
    const mends = repairs.filter((r) => !sidesOf(r.method));
    if (!mends.length)
      return bench.set({
        notice: 'A widening belongs to its picture: widen the other one itself.',
      });
    const copies = mends.map((r, k) =>
      searchedAnew({
        ...r,
        id: crypto.randomUUID(),
        layerId: layer.id,
        position: from + k,
        createdAt: new Date().toISOString(),
      }),
    );
    await api.postChange(pictureId, picture.version, 'Copy repairs here', [
      ...(top ? [] : [layerEdit(layer)]),
      ...copies.map(repairEdit),
    ]);
    bench.set({ notice: `Copied to “${picture.name}”, at the same place.` });
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  }
}
