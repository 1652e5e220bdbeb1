import type { Rect, TellKind } from '@tersum/core';
import { meets } from '@tersum/core';
import type { DonorWishes, FillWishes, Repair, RepairTell, Site } from '@tersum/document';
import { isCopy, plainFill } from '@tersum/document';
import { findDonors } from '../../api/pictures.js';
import { withDonor } from './donors.js';
import { askedFor, withGrain } from './fills.js';

/** What mostly takes a tell away, in one click. */
export interface TellMend {
  readonly label: string;
  /** Whether it mends one spot of many, and leaves the others as they are. */
  readonly local?: boolean;
  /** The repair as it should be, or one on top of it; null when nothing better is to be had. */
  better(): Promise<Repair | null>;
}

type FillRepair = Repair & { readonly method: { readonly kind: 'fill' } };
type Parts = Extract<Site, { kind: 'parts' }>['parts'];

const AWAY: DonorWishes = { turn: 0, mirror: false, scale: [1, 1], away: true };
/** px that another donor lies off the one in use, and off what is seen twice. */
const ELSEWHERE = 24;
const SOFTER = 0.25;
const SOFTEST = 0.8;
const WEAKER = 0.8;
/** px a spot is widened by, and up to which size it is one. */
const WIDER = 2;
const SPOT = 60;
/** Areas that a fill is kept off, at most. */
const MOST_AREAS = 150;

/** The mend that is advised for a tell of a repair; null where only the hand helps. */
export function mendFor(pictureId: string, repair: Repair, tell: RepairTell): TellMend | null {
  const { method, site } = repair;
  if (isFill(repair)) {
    const spot = spotOf(site, tell);
    if (lacksGrain(tell) && repair.method.grain < 1)
      return {
        label: 'Add grain',
        local: spot !== null,
        better: () => Promise.resolve(withGrain(spot ? onTop(repair, spot, tell) : repair)),
      };
    return {
      label: spot ? 'Fill this spot' : 'Fill anew',
      local: spot !== null,
      better: () => Promise.resolve(spot ? onTop(repair, spot, tell) : filledAnew(repair, tell)),
    };
  }
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

function isFill(repair: Repair): repair is FillRepair {
  return repair.method.kind === 'fill';
}

/** Of grain there can be too little and too much. */
function lacksGrain({ kind, value }: RepairTell): boolean {
  return kind === 'grain' && value < 1;
}

/** What a fill should mind more the next time. */
const LEANS: Partial<Record<TellKind, FillWishes['lean']>> = {
  'broken-line': 'structure',
  softness: 'texture',
  grain: 'texture',
};

function filledAnew(repair: FillRepair, tell: RepairTell): Repair {
  const { seed, lean, areas } = repair.method;
  return askedFor(repair, {
    seed: seed + 1,
    lean: LEANS[tell.kind] ?? lean,
    areas: [...areas, ...keptOff(tell)].slice(-MOST_AREAS),
  });
}

/** What is seen twice must not be copied again. */
function keptOff({ kind, twin }: RepairTell): FillWishes['areas'] {
  if (kind !== 'repeat' || !twin) return [];
  return [{ allow: false, width: 1, shape: { kind: 'rectangle', ...twin } }];
}

/** A spot of a sweep filled once more, right above it. */
function onTop(repair: FillRepair, spot: Parts, tell: RepairTell): Repair {
  const { seed } = repair.method;
  const fresh = {
    ...repair,
    id: crypto.randomUUID(),
    position: repair.position + 0.5,
    site: { kind: 'parts' as const, parts: atRim(tell) ? spot.map(wider) : spot },
    reason: '',
    createdAt: new Date().toISOString(),
  };
  const method = plainFill(crypto.randomUUID(), seed);
  return filledAnew({ ...fresh, method }, tell);
}

/** What shows at the rim of a fill mostly is an edge of the damage that was not covered. */
function atRim({ kind }: RepairTell): boolean {
  return kind === 'tone' || kind === 'seam' || kind === 'leftover';
}

/** A small part reaching a little further all round. */
function wider(part: Parts[number]): Parts[number] {
  const { shape, width } = part;
  const box = boundsOf(shape, width);
  if (shape.kind !== 'outline') return { ...part, width: width + 2 * WIDER };
  if (Math.max(box.width, box.height) > SPOT) return part;
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const points = shape.points.map(([x, y]): [number, number] => {
    const far = Math.hypot(x - cx, y - cy) || 1;
    return [x + (WIDER * (x - cx)) / far, y + (WIDER * (y - cy)) / far];
  });
  return { ...part, shape: { ...shape, points } };
}

/**
 * The spot of a fill that is to be filled once more: of a sweep the parts a tell is about, for damage that was left what is
 * left; null when it is the whole fill. One bad spot is no reason to search all others anew.
 */
function spotOf(site: Site, tell: RepairTell): Parts | null {
  if (tell.kind === 'leftover') return [{ shape: roundOf(tell.box), width: 1 }];
  if (site.kind !== 'parts') return null;
  const parts = partsAt(site.parts, tell.box);
  return parts.length && parts.length < site.parts.length ? parts : null;
}

/** An outline round a box. */
function roundOf({ x, y, width, height }: Rect): Parts[number]['shape'] {
  const [rx, ry] = [width / Math.SQRT2 + 1, height / Math.SQRT2 + 1];
  const points = Array.from({ length: 16 }, (_, k): [number, number] => [
    x + (width - 1) / 2 + rx * Math.cos((k * Math.PI) / 8),
    y + (height - 1) / 2 + ry * Math.sin((k * Math.PI) / 8),
  ]);
  return { kind: 'outline', points };
}

/** Parts whose bounds meet a box. */
function partsAt(parts: Parts, box: Rect): Parts {
  return parts.filter(({ shape, width }) => meets(boundsOf(shape, width), box));
}

function boundsOf(shape: Parts[number]['shape'], width: number): Rect {
  if (shape.kind === 'rectangle') return shape;
  const points = shape.kind === 'dab' ? [shape.at] : shape.points;
  const half = shape.kind === 'outline' ? 0 : width / 2;
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [left, top] = [Math.min(...xs) - half, Math.min(...ys) - half];
  return {
    x: left,
    y: top,
    width: Math.max(...xs) + half - left,
    height: Math.max(...ys) + half - top,
  };
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
