import type { Raster } from '../raster/raster.js';
import { createRaster, depthOf } from '../raster/raster.js';
import type { Task } from '../task/task.js';
import { checkpoint } from '../task/task.js';
import type { Sides } from './canvas.js';
import { longer } from './longer.js';

/** A stretched picture. */
export interface Stretched {
  readonly picture: Raster;
  /** How much longer each side's background is than before; 1 where nothing was asked. */
  readonly factors: { readonly [side in keyof Sides]: number };
  /** Differences at the splices beside those of ordinary neighbours; well over 1 begins to show. */
  readonly splices: number;
}

/** The picture with the side to be stretched at its left. Each way undoes itself. */
interface View {
  readonly picture: Raster;
  readonly kept: Uint8Array;
}

/**
 * Stretches the background: splices through what is not protected show a strip of background again, so that texture keeps
 * its size; what changes slowly, as light does, is stretched evenly instead. What is protected moves as a whole, its
 * pixels untouched.
 * @param sides px to be added; what is protected moves right by `left` and down by `top`
 * @param kept 1 = protected
 * @throws CannotStretch
 */
export function stretched(picture: Raster, sides: Sides, kept: Uint8Array, task?: Task): Stretched {
  let view: View = { picture, kept };
  let splices = 0;
  const factors = { left: 1, right: 1, top: 1, bottom: 1 };
  const ways: readonly (readonly [keyof Sides, readonly ((v: View) => View)[]])[] = [
    ['left', []],
    ['right', [mirrored]],
    ['top', [transposed]],
    ['bottom', [transposed, mirrored]],
  ];
  ways.forEach(([side, turns], k) => {
    checkpoint(task, k / 4);
    if (!sides[side]) return;
    let turned = turns.reduce((v, turn) => turn(v), view);
    const done = longer(turned.picture, turned.kept, sides[side], side);
    factors[side] = done.factor;
    splices = Math.max(splices, done.splices);
    turned = done;
    view = [...turns].reverse().reduce((v, turn) => turn(v), turned);
  });
  checkpoint(task, 1);
  return { picture: view.picture, factors, splices };
}

function mirrored(view: View): View {
  const { width } = view.picture;
  return moved(view, width, view.picture.height, (x, y) => y * width + width - 1 - x);
}

function transposed(view: View): View {
  const { width, height } = view.picture;
  return moved(view, height, width, (x, y) => x * width + y);
}

function moved(
  { picture, kept }: View,
  width: number,
  height: number,
  from: (x: number, y: number) => number,
): View {
  const { channels, data } = picture;
  const out = createRaster(width, height, channels, depthOf(data));
  const mask = new Uint8Array(width * height);
  for (let y = 0, p = 0; y < height; y++)
    for (let x = 0; x < width; x++, p++) {
      const q = from(x, y);
      mask[p] = kept[q]!;
      for (let c = 0; c < channels; c++) out.data[p * channels + c] = data[q * channels + c]!;
    }
  return { picture: out, kept: mask };
}
