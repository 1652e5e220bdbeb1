import { extentOf } from '@tersum/core';
import type { Method, MethodKind, Repair } from '@tersum/document';
import { plainFill, shiftDonor } from '@tersum/document';
import { moveShape } from '@tersum/core';
import type { Shape, Tool } from './state.js';

/** How each method is usually drawn; every other way is possible where it makes sense. */
export const USUAL_SHAPE: Partial<Record<MethodKind, Shape>> = {
  patch: 'outline',
  piece: 'outline',
  push: 'stroke',
};

/** How softly each method starts out: hard masks for fills, soft borders for copies. */
export const USUAL_SOFTNESS: Record<MethodKind, number> = {
  clone: 0.5,
  graft: 0.2,
  patch: 0.2,
  fill: 0,
  piece: 0.2,
  push: 1,
  stretch: 0,
  'give back': 0.3,
};

/** Strength of a piece while it is being placed: what lies below shows through (common practice, about half). */
export const SEE_THROUGH = 0.5;

/** Room between a lifted area and where it is first laid, px. */
const ASIDE = 12;

/** The method of a new repair with the tool's settings; donors are still to be chosen. */
export function freshMethod(kind: MethodKind, tool: Tool): Method {
  const donor = shiftDonor(0, 0);
  switch (kind) {
    case 'clone':
    case 'graft':
      return { kind, donor, other: null };
    case 'patch':
      return { kind, donor, other: null, as: tool.patchAs, from: tool.patchFrom };
    case 'fill':
      return plainFill(crypto.randomUUID(), 1, tool.adapt);
    case 'piece':
      return {
        kind,
        donor,
        skew: 0,
        corners: null,
        pins: [],
        reveal: [],
        hidden: false,
        matchTone: false,
      };
    case 'stretch':
      throw new Error('a stretch is not drawn');
    default:
      return { kind };
  }
}

/** A repair that was drawn on what it copies: laid beside it, to be slid to its place. */
export function laidAside(repair: Repair, within: { readonly width: number }): Repair {
  const box = extentOf(repair.site, repair);
  const right = box.x + 2 * box.width + ASIDE <= within.width;
  const dx = (right ? 1 : -1) * (box.width + ASIDE);
  const { method } = repair;
  if (method.kind !== 'patch' && method.kind !== 'piece') return repair;
  return {
    ...repair,
    site: moveShape(repair.site, dx, 0),
    method: { ...method, donor: shiftDonor(-dx, 0) },
  };
}
