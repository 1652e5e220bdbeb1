import type { Repair } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { freshMethod, SEE_THROUGH } from './fresh.js';
import { repairEdit } from './repairs.js';

/** Looks for the counterpart of a lost area and lays it over as a piece, half see-through. */
export async function layTwin(bench: Bench, repair: Repair): Promise<void> {
  const { pictureId, tool } = bench.store.getState();
  bench.set({ computing: 0 });
  try {
    const [twin] = await api.findTwins(pictureId, repair);
    if (!twin) {
      bench.set({ notice: 'No counterpart of this area was found in the surroundings.' });
      return;
    }
    const piece = freshMethod('piece', tool);
    if (piece.kind !== 'piece') return;
    await bench.change('Lay the twin over', [
      repairEdit({
        ...repair,
        strength: SEE_THROUGH,
        method: { ...piece, donor: twin.donor, matchTone: true },
      }),
    ]);
    bench.set({
      pieceHand: 'move',
      axis: twin.axis && { repair: repair.id, line: twin.axis },
    });
  } catch (error) {
    bench.set({ notice: messageOf(error) });
  } finally {
    const { view, records } = bench.store.getState();
    if (view && view.version === records?.picture.version) bench.set({ computing: null });
  }
}
