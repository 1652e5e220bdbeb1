import type { DonorWishes, Repair, RepairTell } from '@tersum/document';
import { isCopy } from '@tersum/document';
import { findDonors } from '../../api/pictures.js';
import type { Bench } from './bench.js';
import { withDonor } from './donors.js';
import { askedFor } from './fills.js';
import { repairEdit } from './repairs.js';

/** What mostly takes a tell away, in one click. */
export interface TellMend {
  readonly label: string;
  /** The repair as it should be; null when nothing better is to be had. */
  better(): Promise<Repair | null>;
}

const AWAY: DonorWishes = { turn: 0, mirror: false, scale: [1, 1], away: true };
/** px that another donor lies off the one in use, and off what is seen twice. */
const ELSEWHERE = 24;
const SOFTER = 0.25;
const SOFTEST = 0.8;
const WEAKER = 0.8;

/** The mend that is advised for a tell; null where only the hand helps. */
export function mendFor(pictureId: string, repair: Repair, tell: RepairTell): TellMend | null {
  const { method } = repair;
  if (method.kind === 'fill')
    return {
      label: 'Fill anew',
      better: () => Promise.resolve(askedFor(repair, { seed: method.seed + 1 })),
    };
  const rim = tell.kind === 'seam' || tell.kind === 'tone';
  if (method.kind === 'piece')
    return rim && !method.matchTone
      ? {
          label: 'Match tone',
          better: () => Promise.resolve({ ...repair, method: { ...method, matchTone: true } }),
        }
      : softer(repair);
  if (!isCopy(method)) return null;
  const copied = method.kind === 'clone' || (method.kind === 'patch' && method.as === 'clone');
  if (rim && copied)
    return {
      label: 'Graft it',
      better: () =>
        Promise.resolve({
          ...repair,
          method:
            method.kind === 'patch'
              ? { ...method, as: 'graft' as const }
              : { ...method, kind: 'graft' as const },
        }),
    };
  if (tell.kind === 'seam') return softer(repair);
  return {
    label: 'Other donor',
    better: () => otherDonor(pictureId, repair, tell),
  };
}

/** Mends a tell as advised. @returns whether something was changed */
export async function mendTell(bench: Bench, mend: TellMend): Promise<boolean> {
  const better = await mend.better();
  if (!better) {
    bench.set({
      notice: 'No better donor was found near by. Hold D and click where to copy from.',
    });
    return false;
  }
  await bench.change(mend.label, [repairEdit(better)]);
  return true;
}

function softer(repair: Repair): TellMend {
  return repair.softness < SOFTEST
    ? {
        label: 'Soften',
        better: () =>
          Promise.resolve({ ...repair, softness: Math.min(SOFTEST, repair.softness + SOFTER) }),
      }
    : {
        label: 'Weaken',
        better: () => Promise.resolve({ ...repair, strength: WEAKER * repair.strength }),
      };
}

async function otherDonor(
  pictureId: string,
  repair: Repair,
  tell: RepairTell,
): Promise<Repair | null> {
  const { method } = repair;
  if (!isCopy(method)) return null;
  // What shows twice has to come from where it is not seen together with the site.
  const wishes = tell.kind === 'repeat' ? AWAY : undefined;
  const offers = await findDonors(pictureId, repair, wishes);
  const taken = [method.donor];
  if (tell.twin)
    taken.push({ ...method.donor, dx: tell.twin.x - tell.box.x, dy: tell.twin.y - tell.box.y });
  const free = offers.find(({ donor }) =>
    taken.every(({ dx, dy }) => Math.hypot(donor.dx - dx, donor.dy - dy) > ELSEWHERE),
  );
  return free ? withDonor(repair, free.donor) : null;
}
