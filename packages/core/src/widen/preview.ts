import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Background } from './background.js';
import { backgroundOf } from './background.js';
import type { Sides } from './canvas.js';
import type { Jump } from './jumps.js';
import { CannotStretch, jumpsFor } from './jumps.js';
import { lay } from './lay.js';
import { movedBy } from './side.js';
import type { View } from './turns.js';
import { TURNS } from './turns.js';

/** Share of its length by which a side is planned longer; and those tried, the most first, by which it is planned shorter. */
const LONGER = 1;
const SHORTER = [0.35, 0.25, 0.15, 0.08, 0.04, 0.02];

/** What was measured of one side of a view, so that any amount is laid at once. */
interface Planned {
  readonly background: Background;
  readonly longer: Plan | null;
  readonly shorter: Plan | null;
}

interface Plan {
  readonly jumps: readonly Jump[];
  /** px they come to. */
  readonly most: number;
}

/** Keeps the value made last under each name. */
class Held<V> {
  private readonly values = new Map<string, { readonly key: unknown; readonly value: V }>();

  get(name: string, key: unknown, make: () => V): V {
    const known = this.values.get(name);
    if (known && known.key === key) return known.value;
    const value = make();
    this.values.set(name, { key, value });
    return value;
  }
}

/**
 * Prepares a small copy for being stretched while somebody drags: splices are chosen once for a side, the cheapest first, and
 * of these as many are used as an amount needs. The side that is dragged is laid last, over what the others came to.
 * @param kept 1 = protected @param scale full px a pixel of the copy stands for
 * @returns the stretched copy for any sides, as near to what is asked as there is background; px of the copy
 */
export function stretchPreview(
  picture: Raster,
  kept: Uint8Array,
  scale: number,
): (sides: Sides) => Raster {
  const plans = new Held<Planned>();
  const stages = new Held<View>();
  let last: Sides = { left: 0, right: 0, top: 0, bottom: 0 };
  let dragged: keyof Sides = 'right';

  /** Lays one side; its plan depends on the other axis alone, since one side does not reach the other's background. */
  const laid = (view: View, side: keyof Sides, sides: Sides): View => {
    if (!sides[side]) return view;
    const turns = TURNS.find(([name]) => name === side)![1];
    const turned = stages.get(`turned ${side}`, view, () => turns.reduce((v, t) => t(v), view));
    const key = AXIS[side] === AXIS[dragged] ? otherAxis(side, sides) : '';
    const plan = plans.get(`${side} ${key ? 'over' : 'first'}`, key, () =>
      planFor(turned, side, scale),
    );
    return [...turns].reverse().reduce((v, t) => t(v), changed(turned, plan, sides[side]));
  };
  return (sides) => {
    dragged = SIDES.find((side) => sides[side] !== last[side]) ?? dragged;
    last = sides;
    const order = orderFor(dragged);
    const before = stages.get('before', order.map((side) => `${side} ${sides[side]}`).join(), () =>
      order.reduce((view, side) => laid(view, side, sides), { picture, kept }),
    );
    return laid(before, dragged, sides).picture;
  };
}

const SIDES = ['left', 'right', 'top', 'bottom'] as const;
const AXIS = { left: 'across', right: 'across', top: 'down', bottom: 'down' } as const;

/** The sides that are laid before one: those of the other axis first. */
function orderFor(last: keyof Sides): (keyof Sides)[] {
  const other = SIDES.filter((side) => AXIS[side] !== AXIS[last]);
  return [...other, ...SIDES.filter((side) => AXIS[side] === AXIS[last] && side !== last)];
}

/** Names what the other axis of a side comes to; empty where it is as it was. */
function otherAxis(side: keyof Sides, sides: Sides): string {
  const other = SIDES.filter((s) => AXIS[s] !== AXIS[side] && sides[s]);
  return other.map((s) => `${s} ${sides[s]}`).join();
}

function planFor({ picture, kept }: View, side: string, scale: number): Planned {
  const background = backgroundOf(picture, kept);
  const tried = (most: number): Plan | null => {
    try {
      return { jumps: jumpsFor(most, background, side, scale), most };
    } catch (error) {
      if (error instanceof CannotStretch) return null;
      throw error;
    }
  };
  let shorter: Plan | null = null;
  for (const share of SHORTER) shorter ??= tried(-Math.round(share * picture.width));
  const longer = tried(Math.round(LONGER * picture.width));
  return { background, longer, shorter };
}

/** Lays a view with so much of a plan as an amount needs. */
function changed({ picture, kept }: View, plan: Planned, asked: number): View {
  const { jumps = [], most = 0 } = (asked < 0 ? plan.shorter : plan.longer) ?? {};
  const amount = asked < 0 ? Math.max(most, asked) : Math.min(most, asked);
  if (!amount) return { picture, kept };
  const count = Math.max(1, Math.min(jumps.length, Math.round((jumps.length * amount) / most)));
  const used = jumps.slice(0, count).map((jump, k) => ({
    ...jump,
    step: Math.round((amount * (k + 1)) / count) - Math.round((amount * k) / count),
  }));
  const { width, height, channels, data } = picture;
  const out = createRaster(width + amount, height, channels, depthOf(data));
  lay(picture, out, used, plan.background, kept);
  return { picture: out, kept: movedBy(kept, width, amount) };
}
