import type { DonorWishes, Offer, Repair } from '@tersum/document';
import { isCopy } from '@tersum/document';
import { messageOf } from '../../api/client.js';
import * as api from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { NO_DONOR, withDonor } from './donors.js';
import { repairEdit } from './repairs.js';

/** What is tried when a person asks for more than shifts. */
const WIDE: DonorWishes = { turn: 20, mirror: true, scale: [0.8, 1.25] };

/**
 * Looks for the donors that suit a repair best and shows them in place, the first one tried out.
 * @param wide tries turned, mirrored and scaled donors as well
 */
export async function findOffers(bench: Bench, repair: Repair, wide = false): Promise<void> {
  const wishes = wide ? WIDE : undefined;
  bench.set({ offers: { repair: repair.id, list: null, at: 0, wide } });
  try {
    const list = await api.findDonors(bench.store.getState().pictureId, repair, wishes);
    if (bench.store.getState().offers?.repair !== repair.id) return;
    if (!list.length) {
      bench.set({ offers: null, notice: NO_DONOR });
      return;
    }
    bench.set({ offers: { repair: repair.id, list, at: 0, wide } });
    tryOffer(bench, repair, list[0]!);
  } catch (error) {
    bench.set({ offers: null, notice: messageOf(error) });
  }
}

/** Goes to the next or previous offer and tries it out. */
export function walkOffers(bench: Bench, step: 1 | -1): boolean {
  const { offers, records } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === offers?.repair);
  if (!offers?.list || !repair) return false;
  const at = (offers.at + step + offers.list.length) % offers.list.length;
  bench.set({ offers: { ...offers, at } });
  tryOffer(bench, repair, offers.list[at]!);
  return true;
}

/** Keeps the offer that is being tried out. */
export function takeOffer(bench: Bench): boolean {
  const { offers, records } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === offers?.repair);
  const offer = offers?.list?.[offers.at];
  if (!repair || !offer) return false;
  bench.set({ offers: null });
  void bench.change('Choose a donor', [repairEdit(withDonor(repair, offer.donor))]);
  return true;
}

/** Puts the offers away; the repair stays as it was. */
export function dropOffers(bench: Bench): void {
  bench.set({ offers: null, preview: null });
}

/** A gap mended from both sides: two donors on opposite sides, blended along the middle. */
export async function fromBothSides(bench: Bench, repair: Repair): Promise<void> {
  const { method } = repair;
  if (!isCopy(method)) return;
  const first = method.donor;
  const list = await api.findDonors(bench.store.getState().pictureId, repair).catch(() => []);
  // The best place that lies on the other side; failing that, the mirrored step.
  const opposite = list.find(({ donor: d }) => d.dx * first.dx + d.dy * first.dy < 0)?.donor ?? {
    ...first,
    dx: -first.dx,
    dy: -first.dy,
  };
  await bench.change('Mend from both sides', [
    repairEdit({ ...repair, method: { ...method, other: opposite } }),
  ]);
}

function tryOffer(bench: Bench, repair: Repair, offer: Offer): void {
  bench.tryOut([repairEdit(withDonor(repair, offer.donor))]);
}
