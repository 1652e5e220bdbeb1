import type { Raster } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { Sides } from './canvas.js';
import { changeSide } from './side.js';
import type { View } from './turns.js';
import { TURNS } from './turns.js';

/** A stretched picture. */
export interface Stretched {
  readonly picture: Raster;
  /** How much longer each side's background is than before; 1 where nothing was asked. */
  readonly factors: { readonly [side in keyof Sides]: number };
  /** Differences at the splices beside those of ordinary neighbours; well over 1 begins to show. */
  readonly splices: number;
  /** Straight lines that are broken: level and plumb ones go on as they are, slanting ones get a step at every splice. */
  readonly broken: number;
}

/**
 * Stretches the background: splices through what is not protected show a strip of background again, or leave one out, so
 * that texture keeps its size; what changes slowly, as light does, is stretched evenly instead. What is protected moves as a
 * whole, its pixels untouched; splices keep off slanting straight lines as far as they can.
 * @param sides px to be added, or taken away below 0; what is protected moves right by `left` and down by `top`
 * @param kept 1 = protected
 * @throws CannotStretch
 */
export function stretched(picture: Raster, sides: Sides, kept: Uint8Array, task?: Task): Stretched {
  let view: View = { picture, kept };
  let [splices, broken] = [0, 0];
  const factors = { left: 1, right: 1, top: 1, bottom: 1 };
  TURNS.forEach(([side, turns], k) => {
    checkpoint(task, k / 4);
    if (!sides[side]) return;
    const turned = turns.reduce((v, turn) => turn(v), view);
    const done = changeSide(turned.picture, turned.kept, sides[side], side);
    factors[side] = done.factor;
    splices = Math.max(splices, done.splices);
    broken += done.broken;
    view = [...turns].reverse().reduce((v, turn) => turn(v), done as View);
  });
  checkpoint(task, 1);
  return { picture: view.picture, factors, splices, broken };
}
