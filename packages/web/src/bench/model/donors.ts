import type { DonorPlacement, Point } from '@tersum/core';
import { cornersOf, extentOf, layOf, placementMap, SCALE_LIMITS } from '@tersum/core';
import type { Donor, Repair } from '@tersum/document';
import { isCopy, piecePlace, siteMiddle } from '@tersum/document';

/** Said when nothing is found. */
export const NO_DONOR =
  'No place near this site is free to copy from. Hold D and click where to copy from.';

/** Where a repair copies from; null for methods without one donor. */
export function donorOf({ method }: Repair): Donor | null {
  return isCopy(method) || method.kind === 'piece' ? method.donor : null;
}

/** The repair with its donor changed. Repairs without a donor stay as they are. */
export function withDonor(repair: Repair, change: Partial<Donor>): Repair {
  const { method } = repair;
  if (!isCopy(method) && method.kind !== 'piece') return repair;
  return { ...repair, method: { ...method, donor: { ...method.donor, ...change } } };
}

/** Whether moving the site leaves the donor where it is: what was lifted or outlined stays what it is. */
export function holdsDonor({ method }: Repair): boolean {
  return method.kind === 'piece' || (method.kind === 'patch' && method.from === 'good');
}

export function turnedBy(repair: Repair, degrees: number): Repair {
  const donor = donorOf(repair);
  if (!donor) return repair;
  const turn = Math.round((donor.turn + degrees) * 10) / 10;
  return withDonor(repair, { turn: ((((turn + 180) % 360) + 360) % 360) - 180 });
}

export function scaledBy(repair: Repair, factor: number): Repair {
  const donor = donorOf(repair);
  if (!donor) return repair;
  const scale = Math.round(donor.scale * factor * 1000) / 1000;
  return withDonor(repair, {
    scale: Math.min(SCALE_LIMITS.most, Math.max(SCALE_LIMITS.least, scale)),
  });
}

/** Corners, in picture points, of the box that a repair copies from (top left, top right, bottom right, bottom left of the site's). */
export function donorCorners(repair: Repair, donor: DonorPlacement): Point[] {
  const box = extentOf(repair.site, repair);
  const map = placementMap(donor, siteMiddle(repair));
  return cornersOf(box).map(([x, y]) => [
    map.a * x + map.b * y + map.c,
    map.d * x + map.e * y + map.f,
  ]);
}

/** Corners of a piece as it is laid down. */
export function laidCorners(repair: Repair): Point[] {
  return cornersOf(extentOf(repair.site, repair)).map(piecePlace(repair).lay.fromRest);
}

/** Corners of a piece as it would lie if none were drawn off and nothing bent. */
export function standingCorners(repair: Repair): Point[] {
  const box = extentOf(repair.site, repair);
  const { method } = repair;
  if (method.kind !== 'piece') return cornersOf(box);
  const { donor, skew } = method;
  return cornersOf(box).map(
    layOf({ placement: donor, skew, corners: null, pins: [] }, box).fromRest,
  );
}
